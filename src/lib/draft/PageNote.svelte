<!-- A note on a page, kept with the current draft. -->
<script lang="ts">
  import { page } from '$app/state';
  import { notePage } from './draft';
  import type { DraftPlace } from './draft';
  import { texts } from './texts';

  let { address, note, onkept }: { address: string; note: string; onkept: () => void } = $props();
  let isWriting = $state(false);
  let text = $derived(note);
  // Every screen of a crawl has these.
  const place = $derived(page.data as unknown as DraftPlace);

  async function keep() {
    if (!(await notePage(place, address, text.trim()))) return;
    isWriting = false;
    onkept();
  }
</script>

{#if isWriting}
  <form
    class="mt-1 flex gap-1.5"
    onsubmit={(event) => {
      event.preventDefault();
      void keep();
    }}
  >
    <input class="input input-xs flex-1" bind:value={text} maxlength="2000" aria-label={texts.noteOfPage} />
    <button class="btn btn-secondary btn-xs">{texts.save}</button>
  </form>
{:else}
  <p class="mt-1 text-xs">
    {#if note}<span class="italic">{note}</span>{/if}
    <button type="button" class="text-primary hover:underline" onclick={() => (isWriting = true)}
      >{note ? texts.changeNote : texts.notePage}</button
    >
  </p>
{/if}
