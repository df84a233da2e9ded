<!-- Keeps a selection under a name, and offers those of the site that are kept. -->
<script lang="ts">
  import { goto, invalidate } from '$app/navigation';
  import { page } from '$app/state';
  import { withState } from './address';
  import Menu from './Menu.svelte';
  import { say } from './say.svelte';

  interface Props {
    site: { id: number; kept?: { name: string; over: 'pages' | 'links'; text: string }[] };
    over: 'pages' | 'links';
    select: string;
    /** Whether there is a selection that can be kept. */
    ready: boolean;
  }
  let { site, over, select, ready }: Props = $props();
  const kept = $derived(site.kept ?? []);
  let name = $state('');

  async function send(method: 'POST' | 'DELETE', body: object, done: string) {
    const response = await fetch(`/sites/${site.id}/kept`, { method, body: JSON.stringify(body) }).catch(() => null);
    if (!response?.ok) {
      const problem = response && ((await response.json().catch(() => null)) as { message?: string } | null);
      say(problem?.message ?? 'It could not be kept. Is Edge Map still running?', true);
      return;
    }
    await invalidate('site:kept');
    say(done);
  }
  async function keep(close: () => void) {
    await send('POST', { name, over, text: select }, `“${name}” is kept.`);
    name = '';
    close();
  }
</script>

<Menu label="Kept{kept.length ? ` ${kept.length}` : ''}">
  {#snippet children(close)}
    <div class="w-80">
      {#if ready}
        <form
          class="flex gap-1.5 p-1"
          onsubmit={(event) => {
            event.preventDefault();
            void keep(close);
          }}
        >
          <input
            bind:value={name}
            required
            maxlength="80"
            class="input input-xs flex-1"
            placeholder="Name for this selection"
            aria-label="Name for this selection"
          />
          <button class="btn btn-secondary btn-xs">Keep</button>
        </form>
      {/if}
      {#each kept as one (one.name)}
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
            aria-label="Forget {one.name}"
            onclick={() => send('DELETE', { name: one.name }, `“${one.name}” is forgotten.`)}>✕</button
          >
        </div>
      {:else}
        <p class="quiet px-2 py-1">
          {ready
            ? 'Nothing is kept yet.'
            : 'Nothing is kept yet. Write or pick a selection, then keep it here by name.'}
        </p>
      {/each}
    </div>
  {/snippet}
</Menu>
