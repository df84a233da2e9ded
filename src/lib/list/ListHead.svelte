<!-- The heads of a list: they sort, tell how their column is distributed, and can be made wider. -->
<script lang="ts" module>
  /** Pixels. */
  export const HEAD = 46;
</script>

<script lang="ts">
  import type { Bin } from '$core/lists';
  import type { ListColumn } from '$core/lists/columns';
  import type { ShownColumn } from './columns';
  import HeadBins from './HeadBins.svelte';
  import { allPicked, noPicks, pickedOf } from './picks';
  import type { Picks } from './picks';
  import { texts } from './texts';

  interface Props {
    shown: (ShownColumn & ListColumn)[];
    columns: ShownColumn[];
    sort: string;
    /** As the rows are laid out. */
    template: string;
    least: number;
    pinnedAt: number[];
    picks: Picks;
    onpick: (picks: Picks) => void;
    total: number;
    /** Where the distributions of the columns are asked for. */
    summarySource: string;
    onsort: (sort: string) => void;
    onnarrow: (select: string) => void;
    oncolumns: (columns: ShownColumn[], done: boolean) => void;
  }
  let {
    shown,
    columns,
    sort,
    template,
    least,
    pinnedAt,
    picks,
    onpick,
    total,
    summarySource,
    onsort,
    onnarrow,
    oncolumns,
  }: Props = $props();

  let bins = $state.raw<Record<string, Bin[]>>({});
  const isNumber = ({ type }: { type: string }) => type === 'number' || type === 'ratio';
  $effect(() => {
    const from = summarySource;
    // What was drawn for another selection stays until the new one is there: no jump.
    fetch(from)
      .then((response) => (response.ok ? response.json() : {}))
      .then((found: Record<string, Bin[]>) => {
        if (from === summarySource) bins = found;
      })
      .catch(() => {});
  });
  /** First by the end that matters more, then by the other one, then not at all. */
  function toggleSort({ name, sort: first }: ListColumn) {
    const orders = first === 'high' ? [`${name}:desc`, name, ''] : [name, `${name}:desc`, ''];
    onsort(orders[(orders.indexOf(sort) + 1) % orders.length]);
  }

  function resize(event: PointerEvent, name: string) {
    const handle = event.currentTarget as HTMLElement;
    const column = columns.find((one) => one.name === name)!;
    const began = handle.parentElement!.getBoundingClientRect().width;
    const from = event.clientX;
    const widthAt = (x: number) => Math.max(44, Math.min(900, began + x - from));
    const set = (x: number, done: boolean) =>
      oncolumns(
        columns.map((one) => (one.name === column.name ? { ...one, width: widthAt(x) } : one)),
        done,
      );
    handle.setPointerCapture(event.pointerId);
    handle.onpointermove = (at) => set(at.clientX, false);
    handle.onpointerup = (at) => {
      handle.onpointermove = handle.onpointerup = null;
      set(at.clientX, true);
    };
    event.preventDefault();
  }
  function resizeByKey(event: KeyboardEvent, name: string) {
    const by = event.key === 'ArrowRight' ? 16 : event.key === 'ArrowLeft' ? -16 : 0;
    if (!by) return;
    oncolumns(
      columns.map((one) => (one.name === name ? { ...one, width: Math.max(44, one.width + by) } : one)),
      true,
    );
    event.preventDefault();
  }
</script>

<div
  class="heads sticky top-0 z-10 border-b border-base-300 bg-base-100 text-xs"
  style:height="{HEAD}px"
  style:grid-template-columns={template}
  style:min-width="{least}px"
  role="row"
  aria-rowindex={1}
>
  <div role="columnheader" class="cell pinned left-0 flex items-center justify-center bg-base-100">
    <input
      type="checkbox"
      class="checkbox checkbox-xs"
      aria-label={texts.pickAllInTheSelection}
      checked={pickedOf(picks, total) > 0 && pickedOf(picks, total) === total}
      indeterminate={pickedOf(picks, total) > 0 && pickedOf(picks, total) < total}
      onchange={() => onpick(pickedOf(picks, total) ? noPicks : allPicked)}
    />
  </div>
  {#each shown as column, i (column.name)}
    {@const { name, label, pinned } = column}
    {@const direction = sort === name ? 'ascending' : sort === `${name}:desc` ? 'descending' : 'none'}
    <div
      role="columnheader"
      aria-sort={direction}
      class="cell group/head relative {pinned ? 'pinned bg-base-100' : ''} {isNumber(column) ? 'text-right' : ''}"
      style:left={pinned ? `${pinnedAt[i]}px` : undefined}
    >
      <button
        type="button"
        class="heading block w-full truncate text-xs whitespace-nowrap hover:text-base-content {isNumber(column)
          ? 'text-right'
          : 'text-left'}"
        title={column.meaning ? `${label}: ${column.meaning}` : label}
        onclick={() => toggleSort(column)}
      >
        {label}<span aria-hidden="true"
          >{direction === 'ascending' ? ' ↑' : direction === 'descending' ? ' ↓' : ''}</span
        >
      </button>
      <div class="h-4">
        {#if bins[name]?.length > 1}<HeadBins
            bins={bins[name]}
            {label}
            atEnd={isNumber(column)}
            onpick={onnarrow}
          />{/if}
      </div>
      <button
        type="button"
        tabindex="-1"
        class="absolute top-1 right-0 bottom-1 w-1.5 cursor-col-resize rounded opacity-0 group-hover/head:opacity-100 hover:bg-primary/40"
        aria-label={texts.widthOf(label)}
        onpointerdown={(event) => resize(event, name)}
        onkeydown={(event) => resizeByKey(event, name)}
      ></button>
    </div>
  {/each}
</div>

<style>
  .heads {
    display: grid;
    align-items: center;
    cursor: default;
  }
  .cell {
    min-width: 0;
    padding: 0 0.5rem;
    overflow: hidden;
  }
  .pinned {
    position: sticky;
    z-index: 1;
  }
</style>
