<!-- Saves a selection under a name, and offers those that are saved. -->
<script lang="ts">
  import { goto, invalidate } from '$app/navigation';
  import { page } from '$app/state';
  import { withState } from '../shell/address';
  import Menu from '../shell/Menu.svelte';
  import { say } from '../shell/say.svelte';
  import { send } from '../shell/send';
  import { texts } from './texts';

  interface Props {
    site: { id: number; saved?: { name: string; over: 'pages' | 'links'; text: string }[] };
    over: 'pages' | 'links';
    select: string;
    /** Whether there is a selection that can be saved. */
    ready: boolean;
  }
  let { site, over, select, ready }: Props = $props();
  const saved = $derived(site.saved ?? []);
  let name = $state('');

  async function change(method: 'POST' | 'DELETE', body: object, done: string) {
    if (!(await send(`/sites/${site.id}/selections`, method, body))) return;
    await invalidate('site:saved');
    say(done);
  }
  async function save(close: () => void) {
    await change('POST', { name, over, text: select }, texts.isSaved(name));
    name = '';
    close();
  }
</script>

<Menu label={texts.saved(saved.length ? ` ${saved.length}` : '')}>
  {#snippet children(close)}
    <div class="w-80">
      {#if ready}
        <form
          class="flex gap-1.5 p-1"
          onsubmit={(event) => {
            event.preventDefault();
            void save(close);
          }}
        >
          <input
            bind:value={name}
            required
            maxlength="80"
            class="input input-xs flex-1"
            placeholder={texts.nameForThisSelection}
            aria-label={texts.nameForThisSelection}
          />
          <button class="btn btn-secondary btn-xs">{texts.save}</button>
        </form>
      {/if}
      {#each saved as one (one.name)}
        <div class="flex items-center rounded hover:bg-base-200">
          <button
            type="button"
            class="min-w-0 flex-1 px-2 py-1 text-left"
            onclick={() => {
              close();
              void goto(withState(page.url, { list: one.over, select: one.text }));
            }}
          >
            <span class="block truncate">{one.name}</span>
            <span class="quiet block truncate font-mono text-xs">{one.text}</span>
          </button>
          <button
            type="button"
            class="quiet px-2 hover:text-base-content"
            aria-label={texts.delete(one.name)}
            onclick={() => change('DELETE', { name: one.name }, texts.isDeleted(one.name))}>✕</button
          >
        </div>
      {:else}
        <p class="quiet px-2 py-1">
          {ready ? texts.noSelectionIsSavedYet : texts.noSelectionIsSavedYetWrite}
        </p>
      {/each}
    </div>
  {/snippet}
</Menu>
