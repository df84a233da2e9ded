<!-- A map with all that is done to it: colours, sizes, a legend that hides, what is looked into, keys, and its table. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import { untrack } from 'svelte';
  import { factNames, factOf, isColumnName } from '$core/facts';
  import type { ColumnName, Verdict } from '$core/facts';
  import type { Box, Flow } from '$core/maps';
  import { narrowed } from '$core/selection/language';
  import Picture from '../charts/Picture.svelte';
  import VerdictMark from '../list/VerdictMark.svelte';
  import type { ScreenState } from '../shell/address';
  import { number } from '../shell/words';
  import { mapPictures, openMaps } from './ask';
  import type { MapDrawn, MapPicture, Maps, MapState, PageTold } from './ask';
  import { besideOf } from './beside';
  import { isDrawable } from './facts';
  import { inkOf } from './inks';
  import MapDrawing from './MapDrawing.svelte';
  import NetMap from './NetMap.svelte';
  import { texts } from './texts';

  interface Props {
    base: string;
    state: ScreenState;
    /** Findings over pages, which colours can tell. */
    findings: readonly { id: string; name: string; select: string }[];
    /** Whether there is a crawl before it. */
    hasEarlier: boolean;
    isTall: boolean;
    onstate: (changes: Partial<ScreenState>) => void;
    tabs: Snippet;
    end: Snippet;
  }
  let { base, state: view, findings, hasEarlier, isTall, onstate, tabs, end }: Props = $props();

  const isDrawn = (name: string): name is ColumnName => isColumnName(name) && isDrawable(name);
  const isNumeric = (name: ColumnName) => ['number', 'ratio'].includes(factOf(name).type);
  const ownColours: ColumnName[] = ['verdict', 'section', 'depth', 'share', 'pages_linking'];
  const sizes: ColumnName[] = ['share', 'pages_linking', 'links_in', 'word_count', 'depth'];
  const others = factNames.filter((name): name is ColumnName => isDrawn(name) && !ownColours.includes(name));
  /** Begun by the browser: the server has no workers of this kind. */
  let begun: Maps | null = null;
  const maps = () => (begun ??= openMaps(base));
  $effect(() => () => begun?.close());

  let drawn = $state.raw<MapDrawn | null>(null);
  let flows = $state.raw<Flow[]>([]);
  let fault = $state('');
  let current = $state('');
  let netMap = $state<NetMap>();
  let hidden = $state.raw<ReadonlySet<number>>(new Set());
  let isTable = $state(false);
  let [width, height] = $state([0, 0]);
  let sought = $state('');
  let lacks = $state(false);
  let pointed = $state.raw<{ told: PageTold; x: number; y: number } | null>(null);

  const picture = $derived(mapPictures.includes(view.picture as MapPicture) ? (view.picture as MapPicture) : '');
  /** What marks pages besides facts, by how addresses name it. */
  const marks = $derived([
    ...(view.select ? [{ colour: 'selection', name: texts.selection, select: view.select }] : []),
    ...(hasEarlier ? texts.changes : []),
    ...findings.map(({ id, name, select }) => ({ colour: `finding ${id}`, name, select })),
  ]);
  const mark = $derived(marks.find(({ colour }) => colour === view.colour));
  /** The fact that colours tell; null for which pages are marked. */
  const colour = $derived(mark ? null : isDrawn(view.colour) ? view.colour : 'verdict');
  const size = $derived(isDrawn(view.size) && isNumeric(view.size) ? view.size : '');
  const MOST_ZOOM = 8;
  const zoom = $derived(Math.min(MOST_ZOOM, Math.max(1, Number(view.zoom) || 1)));
  const asked: MapState = $derived({
    picture,
    reader: view.reader,
    colour: colour ?? 'verdict',
    marked: mark?.select ?? '',
    size,
    only: view.only,
    select: view.select,
    item: view.item,
    from: view.from,
    shape: view.shape === 'whole' ? ('whole' as const) : ('nodes' as const),
    // The picture of links is laid out in units of its own.
    width: Math.max(320, Math.floor(picture === 'links' ? 0 : width * zoom)),
    height: Math.max(160, Math.floor(picture === 'links' ? 0 : height * zoom)),
  });

  $effect(() => {
    const state = asked;
    if (width > 0 && height > 0) untrack(() => void draw(state));
  });
  let turn = 0;
  async function draw(state: MapState) {
    const mine = ++turn;
    try {
      const answer = await maps().ask({ ask: 'draw', state });
      if (mine !== turn) return;
      [drawn, fault, pointed] = [answer.drawn, '', null];
      if (!answer.drawn.scene.boxes.some(({ id }) => id === current)) current = '';
      // The lines come when the links are there.
      flows = [];
      if (state.picture !== '') return;
      const { flows: found } = await maps().ask({ ask: 'flows' });
      if (mine === turn) flows = found;
    } catch (error) {
      if (mine === turn && (error as Error).message !== 'closed') fault = (error as Error).message;
    }
  }
  $effect(() => {
    void [colour, picture];
    hidden = new Set();
  });

  const crumbs = $derived(drawn?.crumbs ?? []);
  const pick = (box: Box) => {
    current = box.id;
    const select = box.select ? { list: 'pages' as const, select: box.select } : {};
    onstate({ ...select, ...(box.page === undefined ? {} : { page: box.id }) });
  };
  const open = (box: Box) => {
    if (box.opens) onstate({ item: box.id });
    else if (box.page !== undefined) onstate({ page: box.id });
  };
  /** Does what the worker is asked for; what fails is told. */
  async function asking(work: () => Promise<void>) {
    try {
      await work();
    } catch (error) {
      if ((error as Error).message !== 'closed') fault = (error as Error).message;
    }
  }
  const toldOf = async (page: number) => (await maps().ask({ ask: 'page', page })).told;
  const tell = (page: number | null, x: number, y: number) =>
    asking(async () => void (pointed = page === null ? null : { told: await toldOf(page), x, y }));
  const toPage = (page: number) => asking(async () => onstate({ page: (await toldOf(page)).address }));
  const find = () =>
    asking(async () => {
      const { found } = await maps().ask({ ask: 'find', text: sought.trim() });
      lacks = found.length === 0 && sought.trim() !== '';
      if (found.length === 0) return;
      const [{ address, item, box }] = found;
      current = box;
      onstate({ item, page: address });
    });

  function onkeydown(event: KeyboardEvent) {
    const box = drawn?.scene.boxes.find(({ id }) => id === current);
    if (event.key.startsWith('Arrow')) current = besideOf(drawn?.scene.boxes ?? [], current, event.key)?.id ?? current;
    else if (event.key === 'Enter' && box) open(box);
    else if (event.key === ' ' && box) pick(box);
    else if (event.key === 'Backspace' && crumbs.length > 0) onstate({ item: crumbs[crumbs.length - 1].item });
    else if (event.key === '+') onstate({ zoom: String(Math.min(MOST_ZOOM, zoom * 2)) });
    else if (event.key === '-') onstate({ zoom: String(Math.max(1, zoom / 2)) });
    else return;
    event.preventDefault();
  }
  const said = $derived(
    drawn &&
      drawn.said.pages > 0 &&
      (picture === ''
        ? texts.saidOfBands(drawn.said)
        : picture === 'routes'
          ? texts.saidOfRoutes(drawn.said)
          : drawn.net
            ? texts.saidOfLinks(
                drawn.net.pages,
                drawn.net.communities,
                drawn.net.everywhere,
                drawn.net.nodes[0]?.page < 0 ? 0 : (drawn.net.apart?.nodes ?? 0),
              )
            : texts.saidOfFolders(drawn.said)),
  );
  const spoken = $derived(drawn?.scene.boxes.find(({ id }) => id === current));
  function toggle(category: number) {
    const now = new Set(hidden);
    if (!now.delete(category)) now.add(category);
    hidden = now;
  }
  const table = () => [
    [texts.columns.box, texts.columns.pages, ...(drawn?.categories.map((one) => texts.category(one, colour)) ?? [])],
    ...(drawn?.net?.nodes.map((node) => [texts.nodeName(node), node.pages, ...node.parts]) ?? []),
    ...(drawn?.scene.boxes.map((box) => [texts.box(box).split(' · ')[0], box.pages, ...box.parts]) ?? []),
  ];
</script>

<p class="font-serif text-xl leading-snug" data-tour="answer">{said || (drawn ? texts.nothing : texts.loading)}</p>
<section
  class="panel mt-2 flex min-h-0 flex-col px-2 pt-1.5 pb-1 {isTall ? 'flex-1' : 'h-80 shrink-0'}"
  aria-label={texts.map}
>
  <div class="flex flex-wrap items-center gap-x-2.5 gap-y-1 pb-1 text-xs">
    {@render tabs()}
    {#if picture === 'links'}
      {@render WhichLinks()}
    {:else if picture !== ''}
      {@render PictureShape()}
    {/if}
    <label class="flex items-center gap-1"
      >{texts.colour}
      <select
        class="select select-xs w-32"
        value={mark?.colour ?? colour}
        onchange={({ currentTarget }) => onstate({ colour: currentTarget.value })}
      >
        {#each ownColours as name (name)}<option value={name}>{texts.label(name)}</option>{/each}
        {#if marks.length > 0}
          <optgroup label={texts.marked}>
            {#each marks as { colour: one, name } (one)}<option value={one}>{name}</option>{/each}
          </optgroup>
        {/if}
        <optgroup label={texts.otherFacts}>
          {#each others as name (name)}<option value={name}>{texts.label(name)}</option>{/each}
        </optgroup>
      </select>
    </label>
    {#if picture === '' || picture === 'links'}
      <label class="flex items-center gap-1"
        >{texts.size}
        <select
          class="select select-xs w-28"
          value={size}
          onchange={({ currentTarget }) => onstate({ size: currentTarget.value })}
        >
          {#each sizes as name (name)}<option value={name}>{texts.label(name)}</option>{/each}
          <option value="">{texts.sameSize}</option>
        </select>
      </label>
    {/if}
    <form onsubmit={(event) => (event.preventDefault(), void find())}>
      <input class="input input-xs w-36" placeholder={texts.find} aria-label={texts.find} bind:value={sought} />
    </form>
    {#if lacks}<span class="quiet" role="status">{texts.notFound}</span>{/if}
    <button
      type="button"
      class="text-primary hover:underline"
      onclick={() => onstate({ zoom: String(Math.min(MOST_ZOOM, zoom * 2)) })}>{texts.zoomIn}</button
    >
    {#if zoom > 1}
      <button type="button" class="text-primary hover:underline" onclick={() => onstate({ zoom: String(zoom / 2) })}
        >{texts.zoomOut}</button
      >
    {/if}
    {#if view.only}
      <button type="button" class="text-primary hover:underline" onclick={() => onstate({ only: '' })}
        >{texts.all}</button
      >
    {:else if view.select}
      <button type="button" class="text-primary hover:underline" onclick={() => onstate({ only: view.select })}
        >{texts.only}</button
      >
    {/if}
    {#if picture === 'routes' && view.from}
      <button type="button" class="text-primary hover:underline" onclick={() => onstate({ from: '', item: '' })}
        >{texts.fromStart}</button
      >
    {:else if picture === 'routes' && view.page}
      <button type="button" class="text-primary hover:underline" onclick={() => onstate({ from: view.page, item: '' })}
        >{texts.reroot}</button
      >
    {/if}
    <button
      type="button"
      class="text-primary hover:underline"
      aria-pressed={isTable}
      onclick={() => (isTable = !isTable)}>{isTable ? texts.picture : texts.table}</button
    >
    {@render end()}
  </div>
  <div class="flex flex-wrap items-center gap-x-3 pr-14 pb-1 text-xs">
    {#each crumbs as { item, name } (item)}
      <button type="button" class="text-primary hover:underline" onclick={() => onstate({ item })}
        >{name ?? texts.everything} ›</button
      >
    {/each}
    {#each drawn?.categories ?? [] as category, i (i)}
      <button
        type="button"
        class="flex items-center gap-1 {hidden.has(i) ? 'line-through opacity-60' : ''}"
        aria-pressed={!hidden.has(i)}
        onclick={() => toggle(i)}
      >
        {#if colour === 'verdict' && category.value.is === 'value'}
          <VerdictMark verdict={category.value.value as Verdict} />
        {:else}
          <span
            class="inline-block size-2.5 rounded-full"
            style:background={inkOf(category, i, drawn!.categories.length, drawn!.isScale, colour)}
          ></span>
        {/if}{texts.category(category, colour)}
      </button>
      <button
        type="button"
        class="quiet tabular -ml-2 enabled:hover:text-primary enabled:hover:underline"
        aria-label={texts.selectCategory(texts.category(category, colour), category.pages)}
        disabled={!category.select}
        onclick={() =>
          onstate({ list: 'pages', select: view.only ? narrowed(view.only, category.select) : category.select })}
        >{number(category.pages)}</button
      >
    {/each}
  </div>
  {#if fault}<p class="text-error" role="alert">{texts.failed(fault)}</p>{/if}
  <div class="min-h-0 flex-1" bind:clientWidth={width} bind:clientHeight={height}>
    <Picture name="map-{picture || 'bands'}" {table} drawing={drawn?.net ? () => netMap!.asSvg() : undefined}>
      <div class="overflow-auto" style:height="{height}px" style:width="{width}px">
        {#if drawn && isTable}
          {@const [heads, ...rows] = table()}
          <table class="table table-xs">
            <thead
              ><tr
                >{#each heads as head, i (i)}<th scope="col">{head}</th>{/each}</tr
              ></thead
            >
            <tbody>
              {#each rows as row, i (i)}
                <tr
                  >{#each row as cell, j (j)}<td class="tabular">{typeof cell === 'number' ? number(cell) : cell}</td
                    >{/each}</tr
                >
              {/each}
            </tbody>
          </table>
        {:else if drawn?.net && drawn.net.nodes.length > 0}
          <NetMap
            bind:this={netMap}
            {base}
            {maps}
            {drawn}
            net={drawn.net}
            by={colour}
            state={view}
            {hidden}
            {width}
            {height}
            {zoom}
            {onstate}
            onpoint={(page, x, y) => void tell(page, x, y)}
            onfault={(told) => (fault = told)}
          />
          {@render Pointed()}
        {:else if drawn && drawn.scene.boxes.length === 0}
          <p class="quiet p-6">{texts.empty}</p>
        {:else if drawn}
          <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
          <!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
          <div class="relative" role="group" tabindex="0" aria-label="{texts.map}. {texts.keys}" {onkeydown}>
            <MapDrawing
              {drawn}
              by={colour}
              {current}
              select={view.select}
              {hidden}
              {flows}
              onpick={pick}
              onopen={open}
              onpage={(page) => void toPage(page)}
              onpoint={(page, x, y) => void tell(page, x, y)}
            />
            {@render Pointed()}
          </div>
        {/if}
      </div>
    </Picture>
  </div>
  <p class="sr-only" aria-live="polite">{spoken ? texts.box(spoken) : ''}</p>
</section>
{#snippet PictureShape()}
  <button
    type="button"
    class="text-primary hover:underline"
    onclick={() => onstate({ shape: view.shape === 'whole' ? 'nodes' : 'whole' })}
    >{view.shape === 'whole' ? texts.nodes : texts.whole}</button
  >
{/snippet}
{#snippet WhichLinks()}
  {#each [['all', texts.withMenus, texts.withoutMenus], ['mutual', texts.mutual, texts.allWays]] as [shape, on, off] (shape)}
    <button
      type="button"
      class="text-primary hover:underline"
      onclick={() => onstate({ shape: view.shape === shape ? 'nodes' : shape })}
      >{view.shape === shape ? off : on}</button
    >
  {/each}
{/snippet}
{#snippet Pointed()}
  {#if pointed}
    {@const { told, x, y } = pointed}
    <div
      class="panel pointer-events-none absolute z-20 max-w-80 px-2 py-1 text-xs shadow"
      style:left="{Math.min(x + 12, asked.width - 320)}px"
      style:top="{y + 12}px"
    >
      <p class="font-semibold break-all">{told.address}</p>
      <p class="quiet">{texts.told(told.depth, told.linking, told.verdict as Verdict)}</p>
    </div>
  {/if}
{/snippet}
