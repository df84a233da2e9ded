<!-- The picture of links, and the walk along them by keys. -->
<script lang="ts">
  import { untrack } from 'svelte';
  import type { ColumnName } from '$core/facts';
  import type { ScreenState } from '../shell/address';
  import type { AroundTold, MapDrawn, Maps, Net, NetNode, NeighbourTold } from './ask';
  import { besideOf } from './beside';
  import NetPicture from './NetPicture.svelte';
  import NetWalk from './NetWalk.svelte';
  import { texts } from './texts';

  interface Props {
    base: string;
    maps: () => Maps;
    drawn: MapDrawn;
    net: Net;
    by: ColumnName | null;
    hidden: ReadonlySet<number>;
    state: ScreenState;
    width: number;
    height: number;
    zoom: number;
    onstate: (changes: Partial<ScreenState>) => void;
    onpoint: (page: number | null, x: number, y: number) => void;
    onfault: (fault: string) => void;
  }
  let {
    base,
    maps,
    drawn,
    net,
    by,
    hidden,
    state: view,
    width,
    height,
    zoom,
    onstate,
    onpoint,
    onfault,
  }: Props = $props();

  let picture = $state<NetPicture>();
  let around = $state.raw<AroundTold | null>(null);
  let cursor = $state(-1);
  let direction = $state<'out' | 'in'>('out');
  let trail = $state.raw<{ address: string; name: string }[]>([]);
  /** The group that is pointed at by key; pages are those of the dossier. */
  let group = $state('');
  const current = $derived(net.nodes.some(({ id }) => id === view.page) ? view.page : group);
  const nodeOfPage = $derived(new Map(net.nodes.map(({ page }, i) => [page, i])));
  const chosen = $derived(nodeOfPage.get(around?.[direction][cursor]?.page ?? -2) ?? -1);

  $effect(() => {
    const { page: address, from, reader } = view;
    untrack(() => void look({ address, from, reader }));
  });
  async function look(asked: { address: string } & Pick<ScreenState, 'from' | 'reader'>) {
    cursor = -1;
    if (!asked.address) {
      around = null;
      return;
    }
    try {
      const answer = await maps().ask({ ask: 'around', ...asked });
      if (asked.address === view.page && asked.from === view.from) around = answer.around;
    } catch (error) {
      if ((error as Error).message !== 'closed') onfault((error as Error).message);
    }
  }
  const nameOf = (address: string) => {
    const { pathname, search } = new URL(address);
    return pathname + search;
  };
  function step({ address }: Pick<NeighbourTold, 'address'>) {
    if (view.page) trail = [...trail, { address: view.page, name: nameOf(view.page) }];
    onstate({ page: address });
  }
  function back(steps: number) {
    const to = trail[trail.length - steps];
    if (!to) return;
    trail = trail.slice(0, trail.length - steps);
    onstate({ page: to.address });
  }
  function pick(node: NetNode) {
    if (node.page >= 0) {
      trail = [];
      onstate({ page: node.id });
      return;
    }
    group = node.id;
    if (node.select) onstate({ list: 'pages', select: node.select });
  }
  const open = (node: NetNode) => node.page < 0 && onstate({ item: node.id });

  /** Steps along links from the page that is open; the walk begins at the start. */
  function walk(key: string): boolean {
    if (!around) {
      const start = net.nodes.find(({ page }) => page >= 0 && page === startPage);
      if (start) onstate({ page: start.id });
      return true;
    }
    const rows = around[direction];
    if (key === 'ArrowDown') cursor = Math.min(rows.length - 1, cursor + 1);
    else if (key === 'ArrowUp') cursor = Math.max(0, cursor - 1);
    else if (key === 'ArrowLeft') back(1);
    else if (rows[Math.max(0, cursor)]) step(rows[Math.max(0, cursor)]);
    return true;
  }
  const startPage = $derived(
    net.nodes.reduce((best, node) => (node.page >= 0 && node.isStart ? node.page : best), net.nodes[0]?.page ?? -1),
  );
  /** Of the list of links, with what is free around it. */
  const WALK_WIDTH = 264;
  const PAN = 60;
  function onkeydown(event: KeyboardEvent) {
    const isArrow = event.key.startsWith('Arrow');
    const hasGroups = net.nodes[0]?.page < 0;
    const node = net.nodes.find(({ id }) => id === current);
    if (isArrow && event.shiftKey) {
      const along = event.key === 'ArrowLeft' || event.key === 'ArrowUp' ? PAN : -PAN;
      if (event.key === 'ArrowLeft' || event.key === 'ArrowRight') picture?.pan(along, 0);
      else picture?.pan(0, along);
    } else if (isArrow && hasGroups) group = besideOf(net.nodes, group, event.key)?.id ?? group;
    else if (isArrow || (event.key === 'Enter' && around)) walk(event.key);
    else if (event.key === 'Enter' && node) open(node);
    else if (event.key === ' ' && node?.select) onstate({ list: 'pages', select: node.select });
    else if (event.key === 'i') [direction, cursor] = [direction === 'out' ? 'in' : 'out', -1];
    else if (event.key === 'z') picture?.undo();
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
  export const asSvg = () => picture!.asSvg();
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<div class="relative" role="group" tabindex="0" aria-label="{texts.map}. {texts.netKeys}" {onkeydown}>
  <NetPicture
    bind:this={picture}
    {net}
    categories={drawn.categories}
    isScale={drawn.isScale}
    {by}
    {hidden}
    shape={view.shape}
    {current}
    {around}
    {chosen}
    {width}
    {height}
    {zoom}
    covered={around && view.page ? WALK_WIDTH : 0}
    onzoom={(to) => onstate({ zoom: String(to) })}
    onpick={pick}
    onopen={open}
    onpoint={(node, x, y) => onpoint(node && node.page >= 0 ? node.page : null, x, y)}
    oncommunity={(number) => onstate({ list: 'pages', select: `community = ${number}` })}
  />
  {#if around && view.page}
    <NetWalk
      {base}
      page={view.page}
      {around}
      {trail}
      from={view.from}
      {cursor}
      {direction}
      oncursor={(to) => (cursor = to)}
      ondirection={(to) => ([direction, cursor] = [to, -1])}
      onstep={step}
      onback={back}
      onselect={(select) => onstate({ list: 'pages', select })}
      ononly={(only) => onstate({ only, item: '' })}
      onfrom={(from) => onstate({ from })}
    />
  {/if}
  {#if picture?.canUndo()}
    <button
      type="button"
      class="absolute right-2 bottom-2 text-xs text-primary hover:underline"
      onclick={() => picture?.undo()}>{texts.undoMove}</button
    >
  {/if}
</div>
