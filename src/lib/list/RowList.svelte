<!-- A virtual list of pages, links, or groups of them, that asks the server for the rows it shows. -->
<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { elementScroll, observeElementOffset, observeElementRect, Virtualizer } from '@tanstack/virtual-core';
  import type { VirtualItem } from '@tanstack/virtual-core';
  import { columnOf } from '$core/lists/columns';
  import type { ListRow, ListWindow } from '$core/lists';
  import type { ListName } from '$core/lists/columns';
  import Cell from './Cell.svelte';
  import type { ShownColumn } from './columns';
  import ListHead, { HEAD } from './ListHead.svelte';
  import type { Picks } from './picks.svelte';
  import { texts } from './texts';

  interface Props {
    list: ListName;
    /** Where rows are asked for; `from` and `size` are added. */
    source: string;
    /** Where the distributions of the columns are asked for. */
    summarySource: string;
    first: ListWindow;
    columns: ShownColumn[];
    start: string;
    sort: string;
    /** Whether a row is the one whose dossier is open. */
    isOpen: (row: ListRow) => boolean;
    picks: Picks;
    onsort: (sort: string) => void;
    onopen: (row: ListRow) => void;
    onnarrow: (select: string) => void;
    oncolumns: (columns: ShownColumn[], done: boolean) => void;
    oncopy: () => void;
  }
  let props: Props = $props();
  const { list, source, first, columns, start, sort, picks } = $derived(props);

  const ROW = 36;
  const BLOCK = 100;

  let viewport: HTMLDivElement;
  let blocks = $state.raw(new Map<number, ListRow[]>());
  let items = $state.raw<VirtualItem[]>([]);
  let height = $state(0);
  let active = $state(0);
  let activeColumn = $state(-1);
  let trouble = $state('');
  const asked = new Set<number>();

  const shown = $derived(columns.map((column) => ({ ...column, ...columnOf(list, column.name)! })));
  const template = $derived(
    `34px ${shown.map(({ width }, i) => (i === 0 ? `minmax(${width}px, 1fr)` : `${width}px`)).join(' ')}`,
  );
  const least = $derived(34 + columns.reduce((sum, { width }) => sum + width, 0));
  const pinnedAt = $derived(shown.map((_, i) => 34 + shown.slice(0, i).reduce((sum, { width }) => sum + width, 0)));
  const isNumber = ({ type }: { type: string }) => type === 'number' || type === 'ratio';

  const virtualizer = new Virtualizer<HTMLDivElement, HTMLDivElement>({
    count: 0,
    getScrollElement: () => viewport ?? null,
    estimateSize: () => ROW,
    overscan: 14,
    // The heads stand above the rows and stay in sight.
    scrollMargin: HEAD,
    scrollPaddingStart: HEAD,
    scrollToFn: elementScroll,
    observeElementRect,
    observeElementOffset,
    onChange: refresh,
  });

  function refresh() {
    items = virtualizer.getVirtualItems();
    height = virtualizer.getTotalSize();
    const from = Math.floor((items[0]?.index ?? 0) / BLOCK);
    const to = Math.floor((items[items.length - 1]?.index ?? 0) / BLOCK);
    // One block further in both directions, so that rows are there before they come into sight.
    for (let block = Math.max(0, from - 1); block <= to + 1; block++) void ask(block);
  }

  async function ask(block: number) {
    if (blocks.has(block) || asked.has(block) || block * BLOCK >= first.total) return;
    asked.add(block);
    const from = source;
    try {
      const response = await fetch(`${from}&from=${block * BLOCK}&size=${BLOCK}`);
      if (!response.ok) throw new Error(String(response.status));
      const { rows } = (await response.json()) as { rows: ListRow[] };
      // An answer to an earlier selection is of no use.
      if (from !== source) return;
      blocks = new Map(blocks).set(block, rows);
      trouble = '';
    } catch {
      if (from === source) trouble = texts.theRowsCouldNotBeRead;
    } finally {
      asked.delete(block);
    }
  }

  /** The rows that came with the screen are fewer than a block. */
  const complete = ({ rows, total }: Props['first']) => rows.length >= Math.min(BLOCK, total);

  $effect(() => {
    // A new selection, order or choice of columns begins with the rows that came with it.
    const window = first;
    void source;
    untrack(() => {
      asked.clear();
      blocks = complete(window) ? new Map([[0, window.rows]]) : new Map();
      active = 0;
      virtualizer.setOptions({ ...virtualizer.options, count: window.total });
      virtualizer.measure();
      virtualizer.scrollToOffset(0);
      refresh();
    });
  });
  onMount(() => {
    const unmount = virtualizer._didMount();
    virtualizer._willUpdate();
    refresh();
    return unmount;
  });

  const rowAt = (index: number) =>
    blocks.get(Math.floor(index / BLOCK))?.[index % BLOCK] ??
    (index < first.rows.length ? first.rows[index] : undefined);

  function move(to: number, extend: boolean) {
    const before = active;
    active = Math.max(0, Math.min(first.total - 1, to));
    if (extend) void picks.range(before, active, idsOf);
    virtualizer.scrollToIndex(active);
  }
  /** The rows between two places; those that are not at hand are asked for. */
  async function idsOf(from: number, to: number): Promise<number[]> {
    const ids: number[] = [];
    for (let at = from; at <= to; at += 500) {
      const size = Math.min(500, to - at + 1);
      const known = Array.from({ length: size }, (_, i) => rowAt(at + i)?.id);
      if (known.every((id) => id !== undefined)) ids.push(...(known as number[]));
      else {
        const response = await fetch(`${source.replace(/columns=[^&]*/, 'columns=')}&from=${at}&size=${size}`);
        ids.push(...((await response.json()) as { rows: ListRow[] }).rows.map(({ id }) => id));
      }
    }
    return ids;
  }

  function onkeydown(event: KeyboardEvent) {
    const page = Math.max(1, Math.floor(viewport.clientHeight / ROW) - 2);
    const row = rowAt(active);
    const steps: Record<string, number> = {
      ArrowDown: active + 1,
      ArrowUp: active - 1,
      PageDown: active + page,
      PageUp: active - page,
      Home: 0,
      End: first.total - 1,
    };
    const command = event.ctrlKey || event.metaKey;
    if (event.key in steps) move(steps[event.key], event.shiftKey);
    else if (event.key === 'ArrowRight') activeColumn = Math.min(shown.length - 1, activeColumn + 1);
    else if (event.key === 'ArrowLeft') activeColumn = Math.max(-1, activeColumn - 1);
    else if (event.key === 'Enter' && row) props.onopen(row);
    else if (event.key === 'x' && row && !command) picks.toggle(row.id, active);
    else if (event.key === 'a' && command) picks.all();
    else if (event.key === 'c' && command && picks.size(first.total)) props.oncopy();
    else if (event.key === 'Escape' && picks.size(first.total)) picks.clear();
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
</script>

<div class="flex min-h-0 flex-1 flex-col">
  <div
    bind:this={viewport}
    class="min-h-0 flex-1 overflow-auto overscroll-contain"
    style:overflow-anchor="none"
    tabindex="0"
    data-key="l"
    role="grid"
    aria-label={texts.rowsArrowsMoveEnterOpensX}
    aria-rowcount={first.total + 1}
    aria-multiselectable="true"
    aria-activedescendant="row-{active}"
    {onkeydown}
  >
    <ListHead
      {shown}
      {columns}
      {sort}
      {template}
      {least}
      {pinnedAt}
      {picks}
      total={first.total}
      summarySource={props.summarySource}
      onsort={props.onsort}
      onnarrow={props.onnarrow}
      oncolumns={props.oncolumns}
    />
    <div class="relative w-full" style:height="{height}px" style:min-width="{least}px" role="rowgroup">
      {#each items as item (item.key)}
        {@const row = rowAt(item.index)}
        {@const picked = row !== undefined && picks.has(row.id)}
        {@const open = row !== undefined && props.isOpen(row)}
        <div
          id="row-{item.index}"
          class="row absolute top-0 left-0 w-full border-b border-base-300/60 {item.index === active
            ? 'active'
            : ''} {picked ? 'picked' : open ? 'open' : ''}"
          style:height="{ROW}px"
          style:grid-template-columns={template}
          style:transform="translateY({item.start - HEAD}px)"
          role="row"
          aria-rowindex={item.index + 2}
          aria-selected={picked}
          tabindex="-1"
          onclick={(event) => {
            active = item.index;
            if (!row) return;
            if (event.shiftKey) void picks.range(picks.anchor, item.index, idsOf);
            else if (event.ctrlKey || event.metaKey) picks.toggle(row.id, item.index);
            else props.onopen(row);
          }}
          onkeydown={undefined}
        >
          {#if row}
            <div role="gridcell" class="cell pick pinned left-0 flex items-center justify-center">
              <input
                type="checkbox"
                class="checkbox checkbox-xs"
                tabindex="-1"
                aria-label={texts.pickThisRow}
                checked={picked}
                onclick={(event) => {
                  event.stopPropagation();
                  if (event.shiftKey) void picks.range(picks.anchor, item.index, idsOf);
                  else picks.toggle(row.id, item.index);
                }}
              />
            </div>
            {#each shown as column, i (column.name)}
              {@const value = row.cells[column.name] ?? null}
              <div
                role="gridcell"
                class="cell {column.pinned ? 'pinned' : ''} {isNumber(column)
                  ? 'tabular text-right'
                  : ''} {item.index === active && i === activeColumn ? 'whole' : ''}"
                style:left={column.pinned ? `${pinnedAt[i]}px` : undefined}
                title={Array.isArray(value) ? value.join(', ') : typeof value === 'string' ? value : undefined}
              >
                <div class="held"><Cell {column} {value} cells={row.cells} {start} width={column.width} /></div>
              </div>
            {/each}
          {:else}
            <div role="gridcell" class="quiet cell">…</div>
          {/if}
        </div>
      {/each}
    </div>
  </div>
  {#if trouble}<p class="lost border-t border-base-300 px-3 py-1" role="alert">{trouble}</p>{/if}
</div>

<style>
  .row {
    display: grid;
    align-items: center;
    cursor: pointer;
    background: var(--color-base-100);
  }
  .row:hover {
    background: color-mix(in oklab, var(--color-base-200) 70%, var(--color-base-100));
  }
  .row.open {
    background: color-mix(in oklab, var(--color-primary) 10%, var(--color-base-100));
  }
  .row.picked {
    background: color-mix(in oklab, var(--color-primary) 18%, var(--color-base-100));
  }
  .cell {
    min-width: 0;
    padding: 0 0.5rem;
    overflow: hidden;
  }
  .pinned {
    position: sticky;
    z-index: 1;
    background: inherit;
  }
  .row.active {
    z-index: 2;
  }
  .held {
    min-width: 0;
  }
  /* A cell that arrows have led to shows all it holds, above its neighbours. */
  .whole {
    overflow: visible;
    z-index: 2;
    align-self: start;
  }
  .whole:not(.pinned) {
    position: relative;
  }
  .whole .held {
    position: absolute;
    top: 0.15rem;
    left: 0.15rem;
    width: max-content;
    min-width: 100%;
    max-width: 40rem;
    overflow-wrap: anywhere;
    text-align: left;
    padding: 0.1rem 0.35rem;
    background: var(--color-base-100);
    outline: 1px solid var(--color-primary);
  }
  .whole .held :global(*) {
    display: inline;
    white-space: normal;
  }
  .whole .held :global(.block) {
    display: block;
  }
  .pick {
    align-self: stretch;
  }
  [role='grid']:focus-visible .active .pick {
    box-shadow: inset 3px 0 0 var(--color-primary);
  }
</style>
