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
  import { allPicked, isPicked, noPicks, pickedOf, toggled, withPicked } from './picks';
  import type { Picks } from './picks';
  import { rowBlocks } from './rowBlocks';
  import { rowCommand } from './rowKeys';
  import type { RowCommand } from './rowKeys';
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
    onpick: (picks: Picks) => void;
    onsort: (sort: string) => void;
    onopen: (row: ListRow) => void;
    onnarrow: (select: string) => void;
    oncolumns: (columns: ShownColumn[], done: boolean) => void;
    oncopy: () => void;
  }
  let props: Props = $props();
  const { list, source, first, columns, start, sort, picks } = $derived(props);

  const ROW = 36;

  let viewport: HTMLDivElement;
  let items = $state.raw<VirtualItem[]>([]);
  let height = $state(0);
  let active = $state(0);
  let activeColumn = $state(-1);
  let trouble = $state('');
  /** Counted up whenever rows have come. */
  let version = $state(0);

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

  const rows = rowBlocks(() => {
    version++;
    trouble = rows.hasFailed() ? texts.theRowsCouldNotBeRead : '';
  });
  /** A row, read again whenever rows have come. */
  const rowAt = (index: number) => (void version, rows.rowAt(index));

  function refresh() {
    items = virtualizer.getVirtualItems();
    height = virtualizer.getTotalSize();
    rows.need(items[0]?.index ?? 0, items[items.length - 1]?.index ?? 0);
  }

  $effect(() => {
    // A new selection, order or choice of columns begins with the rows that came with it.
    const [window, from] = [first, source];
    untrack(() => {
      rows.begin(from, window);
      version++;
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

  const pickRange = async (from: number, to: number) =>
    props.onpick(withPicked(picks, await rows.idsBetween(from, to)));
  const pick = (id: number, at: number) => props.onpick(toggled(picks, id, at));

  function run(command: RowCommand): void {
    const row = rowAt(active);
    switch (command.op) {
      case 'move':
        if (command.extend) void pickRange(active, command.to);
        active = command.to;
        return virtualizer.scrollToIndex(active);
      case 'column':
        activeColumn = Math.max(-1, Math.min(shown.length - 1, activeColumn + command.by));
        return;
      case 'open':
        return row && props.onopen(row);
      case 'pick':
        return row && pick(row.id, active);
      case 'pickAll':
        return props.onpick(allPicked);
      case 'copy':
        return props.oncopy();
      case 'clear':
        return props.onpick(noPicks);
    }
  }

  function onkeydown(event: KeyboardEvent) {
    const page = Math.max(1, Math.floor(viewport.clientHeight / ROW) - 2);
    const command = rowCommand(event, { active, total: first.total, page });
    const needsPicks = command?.op === 'copy' || command?.op === 'clear';
    if (!command || (needsPicks && pickedOf(picks, first.total) === 0)) return;
    if ((command.op === 'open' || command.op === 'pick') && !rowAt(active)) return;
    run(command);
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
      onpick={props.onpick}
      total={first.total}
      summarySource={props.summarySource}
      onsort={props.onsort}
      onnarrow={props.onnarrow}
      oncolumns={props.oncolumns}
    />
    <div class="relative w-full" style:height="{height}px" style:min-width="{least}px" role="rowgroup">
      {#each items as item (item.key)}
        {@const row = rowAt(item.index)}
        {@const picked = row !== undefined && isPicked(picks, row.id)}
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
            if (event.shiftKey) void pickRange(picks.anchor, item.index);
            else if (event.ctrlKey || event.metaKey) pick(row.id, item.index);
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
                  if (event.shiftKey) void pickRange(picks.anchor, item.index);
                  else pick(row.id, item.index);
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
                <div class="held">
                  <Cell {column} {value} cells={row.cells} {start} width={column.width} was={row.was?.[column.name]} />
                </div>
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
