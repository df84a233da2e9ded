<!-- Notes on dates of a site: written, edited and removed. -->
<script lang="ts">
  import { invalidateAll } from '$app/navigation';
  import { say } from '../shell/say.svelte';
  import { send } from '../shell/send';
  import { dayOf } from './series';
  import { texts } from './texts';

  interface Note {
    id: number;
    day: string;
    text: string;
  }
  let { site, notes }: { site: number; notes: Note[] } = $props();
  let editing = $state<number | null>(null);
  let day = $state(dayOf(new Date()));
  let text = $state('');

  function begin(note: Note | null) {
    editing = note?.id ?? null;
    day = note?.day ?? dayOf(new Date());
    text = note?.text ?? '';
  }
  async function save() {
    if (!(await send(`/sites/${site}/notes`, 'POST', { id: editing, day, text }))) return;
    begin(null);
    await invalidateAll();
    say(texts.noteSaved);
  }
  async function remove(id: number) {
    if (!(await send(`/sites/${site}/notes`, 'DELETE', { id }))) return;
    if (editing === id) begin(null);
    await invalidateAll();
    say(texts.noteRemoved);
  }
</script>

<form
  class="flex flex-wrap items-center gap-1 text-xs"
  onsubmit={(event) => {
    event.preventDefault();
    void save();
  }}
>
  <input type="date" bind:value={day} required aria-label={texts.day} class="input input-xs w-30" />
  <input
    bind:value={text}
    required
    maxlength="300"
    aria-label={texts.words}
    placeholder={texts.wordsExample}
    class="input input-xs min-w-0 flex-1"
  />
  <button class="btn btn-secondary btn-xs">{editing === null ? texts.addNote : texts.changeNote}</button>
  {#if editing !== null}
    <button type="button" class="text-primary hover:underline" onclick={() => begin(null)}>{texts.cancel}</button>
  {/if}
</form>
<ul class="mt-1 text-xs">
  {#each notes.toReversed() as note (note.id)}
    <li class="flex items-baseline gap-2 border-t border-base-300/60 py-0.5">
      <span class="tabular quiet">{note.day}</span>
      <span class="min-w-0 flex-1 truncate" title={note.text}>{note.text}</span>
      <button type="button" class="text-primary hover:underline" onclick={() => begin(note)}>{texts.edit}</button>
      <button type="button" class="text-primary hover:underline" onclick={() => remove(note.id)}>{texts.remove}</button>
    </li>
  {:else}
    <li class="quiet py-0.5">{texts.noNotes}</li>
  {/each}
</ul>
