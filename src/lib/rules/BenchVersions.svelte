<!-- Versions of a draft, kept by name, and how the draft differs from them. -->
<script lang="ts">
  import { invalidateAll } from '$app/navigation';
  import { editing } from '../draft/editing';
  import { saveFile } from '../charts/picture';
  import Moment from '../shell/Moment.svelte';
  import { say } from '../shell/say.svelte';
  import { benchTexts as texts } from './benchTexts';

  interface Props {
    draft: string;
    /** The file that was fetched; null where there is none. */
    before: string | null;
    /** Scheme and host that it is for. */
    host: string;
    site: number;
    drafts: { id: number; origin: string; name: string; note: string; savedAt: Date }[];
    onopen: (text: string) => void;
  }
  let { draft, before, host, site, drafts, onopen }: Props = $props();
  const edit = editing();
  let name = $state('');
  let note = $state('');
  let compared = $state.raw<{ name: string; text: string } | null>(null);
  let difference = $state.raw<{ mark: string; text: string }[] | null>(null);

  async function save() {
    const body = JSON.stringify({ origin: host, name, note, body: draft });
    const response = await fetch(`/sites/${site}/drafts`, { method: 'POST', body }).catch(() => null);
    const answer = (await response?.json().catch(() => null)) as { message?: string } | null;
    if (!response?.ok) return say(answer?.message ?? texts.notSaved, true);
    say(texts.saved(name));
    name = note = '';
    await invalidateAll();
  }
  async function bodyOf(id: number): Promise<string | null> {
    const response = await fetch(`/sites/${site}/drafts?id=${id}`).catch(() => null);
    if (response?.ok) return ((await response.json()) as { body: string }).body;
    say(texts.notOpened, true);
    return null;
  }
  async function open(id: number) {
    const body = await bodyOf(id);
    if (body !== null) onopen(body);
  }
  async function remove(id: number, of: string) {
    const response = await fetch(`/sites/${site}/drafts`, { method: 'DELETE', body: JSON.stringify({ id }) }).catch(
      () => null,
    );
    if (!response?.ok) return say(texts.notRemoved, true);
    say(texts.removed(of));
    await invalidateAll();
  }
  async function compareWith(of: string, text: string) {
    compared = { name: of, text };
    const { diffLines } = await import('diff');
    difference = diffLines(text, draft).flatMap(({ value, added, removed }) =>
      value
        .replace(/\n$/, '')
        .split('\n')
        .map((line) => ({ mark: added ? '+' : removed ? '-' : ' ', text: line })),
    );
  }
  async function saveDifference() {
    const { createTwoFilesPatch } = await import('diff');
    const patch = createTwoFilesPatch(compared!.name, 'draft', compared!.text, draft);
    saveFile('robots.diff', new Blob([patch], { type: 'text/plain' }));
  }
</script>

<form
  class="space-y-1"
  onsubmit={(event) => {
    event.preventDefault();
    void save();
  }}
>
  <input
    class="input input-xs w-full"
    aria-label={texts.versionName}
    placeholder={texts.versionName}
    bind:value={name}
    required
    maxlength="80"
  />
  <input
    class="input input-xs w-full"
    aria-label={texts.versionNote}
    placeholder={texts.versionNote}
    bind:value={note}
    maxlength="2000"
  />
  <button class="btn btn-primary btn-xs">{texts.saveVersion}</button>
  {#if edit()}
    <button
      type="button"
      class="btn btn-xs"
      title={texts.tryInDraftTitle}
      onclick={() => edit()?.([{ op: 'robots', source: `${host}/robots.txt`, value: draft }])}
      >{texts.tryInDraft}</button
    >
  {/if}
  <button type="button" class="btn btn-xs" onclick={() => compareWith(texts.fetchedName, before ?? '')}
    >{texts.compareWithFetched}</button
  >
</form>
<ul class="mt-1">
  {#each drafts.filter(({ origin }) => origin === host) as { id, name: of, note: said, savedAt } (id)}
    <li class="border-t border-base-300/60 py-0.5">
      <span class="font-semibold">{of}</span> <span class="quiet"><Moment at={new Date(savedAt)} /></span>
      {#if said}<span class="quiet block">{said}</span>{/if}
      <span class="flex gap-3">
        <button type="button" class="text-primary hover:underline" onclick={() => open(id)}>{texts.openVersion}</button>
        <button
          type="button"
          class="text-primary hover:underline"
          onclick={async () => {
            const body = await bodyOf(id);
            if (body !== null) await compareWith(of, body);
          }}>{texts.compareVersion}</button
        >
        <button type="button" class="text-primary hover:underline" onclick={() => remove(id, of)}
          >{texts.removeVersion}</button
        >
      </span>
    </li>
  {:else}<li class="quiet">{texts.noVersions}</li>{/each}
</ul>
{#if difference && compared}
  <h4 class="heading mt-2">{texts.differenceTo(compared.name)}</h4>
  {#if difference.every(({ mark }) => mark === ' ')}<p class="quiet">{texts.noDifference}</p>
  {:else}
    <pre class="overflow-x-auto font-mono">{#each difference as { mark, text }, i (i)}<span
          class="block {mark === '+' ? 'text-primary' : mark === '-' ? 'lost' : 'quiet'}">{mark} {text}</span
        >{/each}</pre>
    <button type="button" class="text-primary hover:underline" onclick={saveDifference}>{texts.saveDifference}</button>
  {/if}
{/if}
