<!-- The selection as text: what pictures write, and a person can change. -->
<script lang="ts">
  import type { SelectionFault } from '$core/selection';
  import { number } from './words';

  interface Props {
    select: string;
    fault: SelectionFault | null;
    total: number;
    exportHref: string;
    onselect: (select: string) => void;
  }
  let { select, fault, total, exportHref, onselect }: Props = $props();

  // What is typed is the person's until it is sent; a picture that writes a selection replaces it.
  let typed = $derived(select);
  const common = [
    { label: 'Indexable', select: 'indexable' },
    { label: 'Deeper than 3', select: 'depth > 3' },
    { label: 'No route', select: 'not reached' },
    { label: 'No route, in a sitemap', select: 'not reached and seen in sitemap' },
    { label: 'Broken', select: 'verdict in (broken, failing, unanswered)' },
  ];
</script>

<div class="border-b border-base-300 px-3 py-1.5">
  <form
    class="flex items-center gap-3"
    onsubmit={(event) => {
      event.preventDefault();
      onselect(typed.trim());
    }}
  >
    <label for="selection" class="sr-only">Selection</label>
    <input
      id="selection"
      data-key="/"
      bind:value={typed}
      spellcheck="false"
      autocomplete="off"
      placeholder="All pages. Write a selection, such as indexable and depth > 3"
      class="min-w-0 flex-1 rounded bg-transparent px-1 py-1 font-mono text-[0.8125rem]"
      aria-invalid={fault !== null}
      aria-describedby={fault ? 'selection-fault' : undefined}
      onkeydown={(event) => {
        if (event.key === 'Escape') typed = select;
      }}
    />
    <span class="tabular whitespace-nowrap font-semibold" aria-live="polite">
      {fault ? '—' : `${number(total)} ${total === 1 ? 'page' : 'pages'}`}
    </span>
    {#if select}
      <button type="button" class="text-primary hover:underline" onclick={() => onselect('')}>Clear</button>
    {/if}
    <a href={exportHref} download class="text-primary hover:underline">Export</a>
    {#if !fault && total > 0}
      <button
        form="again"
        class="text-primary hover:underline"
        title="A new crawl fetches only what is selected; the rest is carried over">Fetch again</button
      >
    {/if}
  </form>
  <form id="again" method="post" action="?/again"><input type="hidden" name="select" value={select} /></form>
  {#if fault}
    <div id="selection-fault" class="font-mono text-[0.8125rem]" role="alert">
      <div class="lost overflow-hidden whitespace-pre px-1" aria-hidden="true">
        {select.slice(0, fault.at)}<mark class="bg-secondary/25 text-inherit underline decoration-wavy"
          >{select.slice(fault.at, fault.at + fault.length) || '▲'}</mark
        >{select.slice(fault.at + fault.length)}
      </div>
      <p class="px-1 pb-1 font-sans">{fault.message} All pages are shown.</p>
    </div>
  {:else}
    <div class="flex flex-wrap gap-1.5 pt-0.5 pb-0.5">
      {#each common as { label, select: choice } (label)}
        <button
          type="button"
          class="rounded-full border px-2 text-xs leading-5 {choice === select
            ? 'border-primary bg-primary text-primary-content'
            : 'border-base-300 hover:border-primary'}"
          aria-pressed={choice === select}
          onclick={() => onselect(choice === select ? '' : choice)}>{label}</button
        >
      {/each}
    </div>
  {/if}
</div>
