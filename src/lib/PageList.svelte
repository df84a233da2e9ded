<!-- The pages of a selection: a virtual list that asks the server for the rows it shows. -->
<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { elementScroll, observeElementOffset, observeElementRect, Virtualizer } from '@tanstack/virtual-core';
  import type { VirtualItem } from '@tanstack/virtual-core';
  import type { Reach } from '$core/reach';
  import type { Verdict } from '$core/verdict';
  import VerdictMark from './VerdictMark.svelte';
  import { number, reachLabel, shortAddress, verdictLabel } from './words';

  type Row = Record<string, unknown>;
  interface Props {
    /** Where rows are asked for; `from` and `size` are added. */
    source: string;
    first: { total: number; from: number; rows: Row[] };
    start: string;
    sort: string;
    /** Address of the page whose dossier is open. */
    picked: string;
    onsort: (sort: string) => void;
    onpick: (address: string) => void;
  }
  let { source, first, start, sort, picked, onsort, onpick }: Props = $props();

  const ROW = 36;
  const HEAD = 30;
  const BLOCK = 100;
  const columns = [
    { name: 'url', label: 'Address', numeric: false },
    { name: 'depth', label: 'Depth', numeric: true },
    { name: 'pages_linking', label: 'Pages linking', numeric: true },
    { name: 'links_out', label: 'Links out', numeric: true, wide: true },
    { name: 'status', label: 'Status', numeric: true, wide: true },
    { name: 'verdict', label: 'Verdict', numeric: false },
    { name: 'seen_in', label: 'Seen in', numeric: false, roomy: true, fixed: true },
  ];

  let viewport: HTMLDivElement;
  let blocks = $state.raw(new Map<number, Row[]>());
  let items = $state.raw<VirtualItem[]>([]);
  let height = $state(0);
  let active = $state(0);
  let trouble = $state('');
  const asked = new Set<number>();

  const virtualizer = new Virtualizer<HTMLDivElement, HTMLDivElement>({
    count: 0,
    getScrollElement: () => viewport ?? null,
    estimateSize: () => ROW,
    overscan: 12,
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
      const response = await fetch(`${from}${from.includes('?') ? '&' : '?'}from=${block * BLOCK}&size=${BLOCK}`);
      if (!response.ok) throw new Error(String(response.status));
      const { rows } = (await response.json()) as { rows: Row[] };
      // An answer to an earlier selection is of no use.
      if (from !== source) return;
      blocks = new Map(blocks).set(block, rows);
      trouble = '';
    } catch {
      if (from === source) trouble = 'The rows could not be read. Is Edge Map still running?';
    } finally {
      asked.delete(block);
    }
  }

  $effect(() => {
    // A new selection or order begins at the top with the rows that came with it.
    const window = first;
    untrack(() => {
      asked.clear();
      blocks = new Map([[0, window.rows]]);
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

  const rowAt = (index: number) => blocks.get(Math.floor(index / BLOCK))?.[index % BLOCK];

  /** Where an address must be cut, its folders give way first: the last part tells pages apart. */
  function parts(address: string): [string, string] {
    const short = shortAddress(address, start);
    const cut = short.slice(0, -1).lastIndexOf('/') + 1;
    return [short.slice(0, cut), short.slice(cut)];
  }

  function toggle(name: string) {
    onsort(sort === name ? `${name}:desc` : sort === `${name}:desc` ? '' : name);
  }

  function move(to: number) {
    active = Math.max(0, Math.min(first.total - 1, to));
    virtualizer.scrollToIndex(active);
  }

  function onkeydown(event: KeyboardEvent) {
    const page = Math.max(1, Math.floor(viewport.clientHeight / ROW) - 1);
    const steps: Record<string, number> = { ArrowDown: active + 1, ArrowUp: active - 1, PageDown: active + page, PageUp: active - page, Home: 0, End: first.total - 1 }; // prettier-ignore
    if (event.key in steps) move(steps[event.key]);
    else if (event.key === 'Enter' && rowAt(active)) onpick(rowAt(active)!.url as string);
    else return;
    event.preventDefault();
  }
</script>

<div class="list flex min-h-0 flex-1 flex-col" role="grid" aria-label="Pages" aria-rowcount={first.total + 1}>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
  <div
    bind:this={viewport}
    class="min-h-0 flex-1 overflow-y-auto overscroll-contain"
    style:overflow-anchor="none"
    tabindex="0"
    role="rowgroup"
    aria-label="Rows: arrows move, Enter opens the dossier"
    {onkeydown}
  >
    <div
      class="row heads sticky top-0 z-10 border-b border-base-300 bg-base-100 text-xs"
      style:height="{HEAD}px"
      role="row"
      aria-rowindex={1}
    >
      {#each columns as { name, label, numeric, wide, roomy, fixed } (name)}
        {@const direction = sort === name ? 'ascending' : sort === `${name}:desc` ? 'descending' : 'none'}
        <div
          role="columnheader"
          aria-sort={direction}
          class="{numeric ? 'text-right' : ''} {wide ? 'wide' : ''} {roomy ? 'roomy' : ''}"
        >
          {#if fixed}
            <span class="heading text-xs">{label}</span>
          {:else}
            <button
              type="button"
              class="heading text-xs whitespace-nowrap hover:text-base-content"
              onclick={() => toggle(name)}
            >
              {label}<span aria-hidden="true"
                >{direction === 'ascending' ? ' ↑' : direction === 'descending' ? ' ↓' : ''}</span
              >
            </button>
          {/if}
        </div>
      {/each}
    </div>
    <div class="relative w-full" style:height="{height}px">
      {#each items as item (item.key)}
        {@const row = rowAt(item.index)}
        <div
          class="row absolute top-0 left-0 w-full border-b border-base-300/60 {item.index === active
            ? 'active'
            : ''} {row && row.url === picked ? 'bg-primary/10' : 'hover:bg-base-200/70'}"
          style:height="{ROW}px"
          style:transform="translateY({item.start - HEAD}px)"
          role="row"
          aria-rowindex={item.index + 2}
          aria-selected={row?.url === picked}
          tabindex="-1"
          onclick={() => {
            active = item.index;
            if (row) onpick(row.url as string);
          }}
          onkeydown={undefined}
        >
          {#if row}
            {@const lost = row.reach !== 'reached'}
            {@const [folder, last] = parts(row.url as string)}
            <div role="gridcell" class="min-w-0" title={row.url as string}>
              <div class="flex font-mono text-[0.8125rem]">
                {#if folder}<span class="quiet truncate {folder.length > 1 ? 'min-w-4' : ''}">{folder}</span>{/if}
                <span class="max-w-[85%] shrink-0 truncate">{last}</span>
              </div>
              {#if row.title}<div class="quiet truncate text-xs">{row.title}</div>{/if}
            </div>
            <div role="gridcell" class="tabular text-right">{number(row.depth)}</div>
            <div role="gridcell" class="tabular text-right">{number(row.pages_linking)}</div>
            <div role="gridcell" class="tabular wide text-right">{number(row.links_out)}</div>
            <div role="gridcell" class="tabular wide text-right">{row.status ?? '—'}</div>
            <div role="gridcell" class="flex min-w-0 items-center gap-1.5">
              <VerdictMark verdict={row.verdict as Verdict} />
              <span class="truncate">{verdictLabel[row.verdict as Verdict]}</span>
              {#if lost}
                <VerdictMark verdict={row.verdict as Verdict} {lost} />
                <span class="lost truncate">{reachLabel[row.reach as Reach]}</span>
              {/if}
            </div>
            <div
              role="gridcell"
              class="roomy min-w-0 gap-1 overflow-hidden"
              title={(row.seen_in as string[]).join(', ')}
            >
              {#each (row.seen_in as string[]).slice(0, 2) as from (from)}
                <span class="rounded border border-base-300 px-1 text-xs leading-4.5">{from}</span>
              {/each}
              {#if (row.seen_in as string[]).length > 2}
                <span class="quiet text-xs leading-5">+{(row.seen_in as string[]).length - 2}</span>
              {/if}
            </div>
          {:else}
            <div role="gridcell" class="quiet">…</div>
          {/if}
        </div>
      {/each}
    </div>
  </div>
  {#if trouble}<p class="lost border-t border-base-300 px-3 py-1" role="alert">{trouble}</p>{/if}
</div>

<style>
  .list {
    container-type: inline-size;
  }
  .row {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 2.75rem 5.25rem 10.5rem;
    column-gap: 0.625rem;
    align-items: center;
    padding: 0 0.75rem;
    cursor: pointer;
  }
  .heads {
    cursor: default;
  }
  .wide,
  .roomy {
    display: none;
  }
  @container (min-width: 640px) {
    .row {
      grid-template-columns: minmax(0, 1fr) 2.75rem 5.25rem 10.5rem 8.5rem;
    }
    .roomy {
      display: flex;
    }
  }
  @container (min-width: 900px) {
    .row {
      grid-template-columns: minmax(0, 1fr) 3.25rem 5.5rem 4.5rem 3.5rem 12.5rem 12rem;
    }
    .wide {
      display: block;
    }
  }
  [role='rowgroup']:focus-visible .active {
    box-shadow: inset 3px 0 0 var(--color-primary);
  }
</style>
