<!-- A walk along links: where it has led, what a page links to and what links to it, and what hangs on it. -->
<script lang="ts">
  import { untrack } from 'svelte';
  import { verdicts } from '$core/facts';
  import type { ListWindow } from '$core/lists';
  import { quote } from '$core/selection/language';
  import VerdictMark from '../list/VerdictMark.svelte';
  import type { AroundTold, NeighbourTold } from './ask';
  import { texts } from './texts';

  interface Props {
    base: string;
    /** Address of the page where the walk is. */
    page: string;
    around: AroundTold;
    /** The addresses before it, the last at the end. */
    trail: readonly { address: string; name: string }[];
    /** The page with which a way begins; '' for none. */
    from: string;
    cursor: number;
    direction: 'out' | 'in';
    oncursor: (cursor: number) => void;
    ondirection: (direction: 'out' | 'in') => void;
    onstep: (to: NeighbourTold) => void;
    onback: (steps: number) => void;
    onselect: (select: string) => void;
    ononly: (select: string) => void;
    onfrom: (from: string) => void;
  }
  let {
    base,
    page,
    around,
    trail,
    from,
    cursor,
    direction,
    oncursor,
    ondirection,
    onstep,
    onback,
    onselect,
    ononly,
    onfrom,
  }: Props = $props();

  const MOST = 200;
  const rows = $derived(around[direction]);
  /** By address the words of the first link. */
  let words = $state.raw<ReadonlyMap<string, string>>(new Map());
  const here = $derived(`url = ${quote(page)}`);
  $effect(() => {
    const [of, way] = [here, direction];
    untrack(() => void read(of, way));
  });
  async function read(of: string, way: 'out' | 'in') {
    words = new Map();
    const select = way === 'out' ? `kind = click and from (${of})` : `kind = click and not self and to (${of})`;
    const other = way === 'out' ? 'target' : 'source';
    const query = { list: 'links', select, columns: `${other},anchor`, from: '0', size: String(MOST) };
    const response = await fetch(`${base}/rows?${new URLSearchParams(query)}`).catch(() => null);
    // Without their words the pages can still be walked.
    if (!response?.ok || of !== here || way !== direction) return;
    const found = (await response.json()) as ListWindow;
    words = new Map(
      found.rows.map((row) => [String(row.cells[other]), String(row.cells.anchor ?? '')]).reverse() as [
        string,
        string,
      ][],
    );
  }
  let list = $state<HTMLOListElement>();
  $effect(() => {
    list?.children[cursor]?.scrollIntoView({ block: 'nearest' });
  });
  const MOST_BACK = 4;
  const NEAR = [1, 2, 3];
  /** What lies so many clicks behind the page, and what leads to it with as many. */
  const nearby = (clicks: number) => {
    let leads = here;
    const tests = [`within ${clicks} of (${here})`];
    for (let click = 0; click < clicks; click++) tests.push((leads = `links to (${leads})`));
    return tests.join(' or ');
  };
</script>

<div
  class="panel absolute top-1 left-1 z-10 flex max-h-[calc(100%-0.5rem)] w-64 flex-col px-2 py-1.5 text-xs shadow"
  role="group"
  aria-label={texts.walk}
>
  {#if trail.length > 0}
    <p class="truncate pb-0.5">
      {#each trail.slice(-MOST_BACK) as { address, name }, i (`${i} ${address}`)}
        <button
          type="button"
          class="text-primary hover:underline"
          title={name}
          onclick={() => onback(Math.min(MOST_BACK, trail.length) - i)}
          >{name.split('/').filter(Boolean).pop() ?? '/'}</button
        >
        ›
      {/each}
    </p>
  {/if}
  {#if around.way}
    <p class="pb-0.5" role="status">
      {texts.way(
        from,
        around.way.map(({ name }) => name),
      )}
    </p>
  {/if}
  <p class="pb-0.5">
    {#if around.hanging.length > 0}
      <button type="button" class="lost text-left hover:underline" onclick={() => onselect(`only through (${here})`)}
        >{texts.ifGone(around.hanging.length)}</button
      >
    {:else}<span class="quiet">{texts.noneHangs}</span>{/if}
  </p>
  <p class="flex flex-wrap gap-x-2 pb-1">
    <span class="quiet">{texts.drawNear}</span>
    {#each NEAR as clicks (clicks)}
      <button
        type="button"
        class="text-primary hover:underline"
        aria-label={texts.nearby(clicks)}
        onclick={() => ononly(nearby(clicks))}>{clicks}</button
      >
    {/each}
    {#if from === page || from === ''}
      <button type="button" class="text-primary hover:underline" onclick={() => onfrom(from ? '' : page)}
        >{from ? texts.noWay : texts.wayFrom}</button
      >
    {:else}
      <button type="button" class="text-primary hover:underline" onclick={() => onfrom('')}>{texts.noWay}</button>
    {/if}
  </p>
  <div class="flex gap-1 border-b border-base-300" role="tablist">
    {#each ['out', 'in'] as const as way (way)}
      <button
        type="button"
        role="tab"
        aria-selected={direction === way}
        class="-mb-px border-b-2 px-1 py-0.5 {direction === way
          ? 'border-primary font-semibold'
          : 'quiet border-transparent'}"
        onclick={() => ondirection(way)}>{texts.linksOf(way, around[way].length)}</button
      >
    {/each}
  </div>
  <ol bind:this={list} class="min-h-0 flex-1 overflow-y-auto pt-0.5">
    {#each rows.slice(0, MOST) as one, i (one.page)}
      <li>
        <button
          type="button"
          class="flex w-full items-center gap-1.5 rounded px-1 py-px text-left {i === cursor
            ? 'bg-base-200 font-semibold'
            : ''} {one.isEverywhere ? 'quiet' : ''}"
          aria-current={i === cursor ? 'true' : undefined}
          title={one.address}
          onpointerenter={() => oncursor(i)}
          onclick={() => onstep(one)}
        >
          <VerdictMark verdict={verdicts[one.verdict]} size={10} />
          <span class="min-w-0 flex-1">
            <span class="block truncate" dir="rtl"><bdi>{one.name}</bdi></span>
            {#if words.get(one.address)}<span class="quiet block truncate font-normal">“{words.get(one.address)}”</span
              >{/if}
          </span>
          {#if one.isMutual}<span title={texts.bothWays} aria-label={texts.bothWays}>⇄</span>{/if}
        </button>
      </li>
    {/each}
    {#if rows.length === 0}<li class="quiet px-1 py-1">{texts.noLinks(direction)}</li>{/if}
    {#if rows.length > MOST}<li class="quiet px-1 py-1">{texts.moreLinks(rows.length - MOST)}</li>{/if}
  </ol>
</div>
