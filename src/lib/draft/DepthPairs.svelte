<!-- Pages by clicks from the start: an outline as crawled, a filled bar as drafted. -->
<script lang="ts">
  import { number } from '../shell/words';
  import { texts } from './texts';

  let { depths }: { depths: { depth: number | null; before: number; after: number }[] } = $props();
  const most = $derived(Math.max(1, ...depths.flatMap(({ before, after }) => [before, after])));
  const name = (depth: number | null) => (depth === null ? texts.noRoute : depth === 0 ? texts.start : String(depth));
  /** Something that is there is seen. */
  const height = (pages: number) => (pages === 0 ? 0 : Math.max(2, (100 * pages) / most));
</script>

<div class="flex items-center gap-4 text-xs">
  <span class="flex items-center gap-1.5"
    ><i class="inline-block h-2.5 w-4 border border-base-content/60"></i>{texts.before}</span
  >
  <span class="flex items-center gap-1.5"><i class="inline-block h-2.5 w-4 bg-primary"></i>{texts.after}</span>
</div>
<ol class="mt-2 flex h-44 items-stretch gap-1 overflow-x-auto">
  {#each depths as { depth, before, after } (depth)}
    <li
      class="flex min-w-10 flex-1 flex-col text-center text-xs"
      title="{name(depth)}: {number(before)} → {number(after)}"
    >
      <div class="flex flex-1 items-end justify-center gap-0.5">
        <span
          class="w-5 border {depth === null ? 'border-dashed border-[var(--lost)]' : 'border-base-content/60'} {before
            ? ''
            : 'border-0'}"
          style="height: {height(before)}%"
        ></span>
        <span class="w-5 {depth === null ? 'bg-[var(--lost)]' : 'bg-primary'}" style="height: {height(after)}%"></span>
      </div>
      <b class="tabular leading-4 {before === after ? 'font-normal' : ''}">{number(after)}</b>
      <span class="quiet tabular leading-4">{before === after ? '' : number(before)}&nbsp;</span>
      <span class="border-t border-base-300 whitespace-nowrap">{name(depth)}</span>
    </li>
  {/each}
</ol>
