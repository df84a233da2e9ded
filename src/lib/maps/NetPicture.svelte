<!-- The graph of links as it was laid out: what is drawn, pointed at, moved and written. -->
<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { SvelteMap } from 'svelte/reactivity';
  import { verdicts } from '$core/facts';
  import type { Category } from '$core/maps';
  import type { ColumnName } from '$core/facts';
  import { verdictShapes } from '../list/verdictShapes';
  import type { AroundTold, Net, NetNode } from './ask';
  import { inkOf } from './inks';
  import { nodeAt, pixelsOf, textSize, wholeView, written, zoomedBy } from './net';
  import type { Wanted } from './net';
  import { inkReader, openNetCanvas, shapeNames } from './netCanvas';
  import type { NetCanvas, NetView } from './netCanvas';
  import { texts } from './texts';

  interface Props {
    net: Net;
    categories: Category[];
    isScale: boolean;
    by: ColumnName | null;
    hidden: ReadonlySet<number>;
    /** Which links: all but those to where all link, all, or those that go both ways. */
    shape: string;
    /** Of the node that is picked or pointed at by key; '' for none. */
    current: string;
    around: AroundTold | null;
    /** The neighbour that a step would lead to; -1 for none. */
    chosen: number;
    width: number;
    height: number;
    /** How wide what covers the left of it is. */
    covered: number;
    zoom: number;
    onzoom: (zoom: number) => void;
    onpick: (node: NetNode) => void;
    onopen: (node: NetNode) => void;
    onpoint: (node: NetNode | null, x: number, y: number) => void;
    oncommunity: (community: number) => void;
  }
  let {
    net,
    categories,
    isScale,
    by,
    hidden,
    shape,
    current,
    around,
    chosen,
    width,
    height,
    covered,
    zoom,
    onzoom,
    onpick,
    onopen,
    onpoint,
    oncommunity,
  }: Props = $props();

  const OUT = 'var(--color-primary)';
  const IN = 'var(--v-canonicalised)';
  let canvas = $state<HTMLCanvasElement>();
  let drawing = $state.raw<NetCanvas | null>(null);
  let isStatic = $state(false);
  let theme = $state('');
  let pointed = $state(-1);
  /** Where nodes were put by hand, and where those were before that were moved, the last at the end. */
  const moved = new SvelteMap<string, { x: number; y: number }>();
  let before = $state.raw<{ id: string; was: { x: number; y: number } | undefined }[]>([]);
  export const canUndo = () => before.length > 0;
  export function undo() {
    const last = before[before.length - 1];
    if (!last) return;
    if (last.was) moved.set(last.id, last.was);
    else moved.delete(last.id);
    before = before.slice(0, -1);
  }

  const nodes = $derived(net.nodes.map((node) => ({ ...node, ...moved.get(node.id) })));
  const paper = $derived({ width, height });
  const whole = $derived(wholeView(net, paper, covered));
  let view = $state.raw<NetView>({ scale: 1, left: 0, top: 0 });
  let fittedTo: NetView | null = null;
  $effect(() => {
    const [start, most] = [whole, zoom];
    untrack(() => {
      // After a wheel the picture is there already, around the pointer; addresses round its size.
      const isThere = start === fittedTo && Math.abs(view.scale / (start.scale * most) - 1) < 0.01;
      fittedTo = start;
      if (!isThere) view = centred(zoomedBy(start, most, width / 2, height / 2));
    });
  });
  /** A view in which the current node can be seen. */
  function centred(one: NetView): NetView {
    const node = nodes.find(({ id }) => id === current);
    if (!node) return one;
    const { x, y } = pixelsOf(one, node);
    const isSeen = x > covered + 20 && y > 20 && x < width - 20 && y < height - 20;
    return isSeen ? one : { ...one, left: one.left + width / 2 - x, top: one.top + height / 2 - y };
  }
  $effect(() => {
    void current;
    untrack(() => (view = centred(view)));
  });

  onMount(() => {
    theme = document.documentElement.dataset.theme ?? '';
    const themes = new MutationObserver(() => (theme = document.documentElement.dataset.theme ?? ''));
    themes.observe(document.documentElement, { attributeFilter: ['data-theme'] });
    drawing = openNetCanvas(canvas!);
    isStatic = drawing === null;
    return () => (themes.disconnect(), drawing?.close());
  });

  const at = $derived(nodes.findIndex(({ id }) => id === current));
  const focus = $derived(pointed >= 0 ? pointed : at);
  const drawnEdges = $derived.by(() => {
    const { from, isMutual, isEverywhere } = net.edges;
    return [...from.keys()].filter((edge) =>
      shape === 'mutual' ? isMutual[edge] === 1 : shape === 'all' || isEverywhere[edge] === 0,
    );
  });
  const ofFocus = $derived(
    focus < 0
      ? []
      : [...net.edges.from.keys()].filter(
          (edge) =>
            (net.edges.from[edge] === focus || net.edges.to[edge] === focus) &&
            (shape !== 'mutual' || net.edges.isMutual[edge] === 1),
        ),
  );
  const near = $derived(new Set(ofFocus.flatMap((edge) => [net.edges.from[edge], net.edges.to[edge]]).concat(focus)));
  const hanging = $derived(new Set(around?.hanging ?? []));
  const nodeOfPage = $derived(new Map(nodes.map(({ page }, i) => [page, i])));
  const way = $derived((around?.way ?? []).flatMap(({ page }) => nodeOfPage.get(page) ?? []));
  const opacityOf = ({ isDimmed }: NetNode, i: number) => (isDimmed ? 0.2 : focus >= 0 && !near.has(i) ? 0.35 : 1);
  const inks = $derived(categories.map((one, i) => inkOf(one, i, categories.length, isScale, by)));
  const shapeOf = ({ verdict, isLost }: NetNode) => (isLost ? 'lost' : verdicts[verdict]);
  const inkFor = ({ isLost, category }: NetNode) => (isLost && by === 'verdict' ? 'var(--lost)' : inks[category]);
  /** Of many links of one node, each is drawn more lightly. */
  const strength = $derived(0.9 * Math.min(1, Math.sqrt(40 / (ofFocus.length + 1))));
  const faintness = $derived(Math.max(0.05, Math.min(0.3, 12 / Math.sqrt(drawnEdges.length + 1))));

  $effect(() => {
    if (!drawing) return;
    void theme;
    const ink = inkReader();
    const { from, to } = net.edges;
    const edgesOf = (numbers: readonly number[], colourOf: (edge: number) => string, opacity: number, begin: number) =>
      numbers.map((edge) => ({
        from: nodes[from[edge]],
        to: nodes[to[edge]],
        ink: ink(colourOf(edge), opacity),
        begin,
      }));
    const isShown = (edge: number) => !hidden.has(nodes[from[edge]].category) && !hidden.has(nodes[to[edge]].category);
    drawing.faintEdges(edgesOf(drawnEdges.filter(isShown), () => 'var(--color-base-content)', faintness, 0.35));
    drawing.strongEdges(edgesOf(ofFocus.filter(isShown), (edge) => (from[edge] === focus ? OUT : IN), strength, 0.12));
    drawing.nodes(
      nodes.flatMap((node, i) =>
        hidden.has(node.category)
          ? []
          : [
              {
                ...node,
                ink: ink(inkFor(node), opacityOf(node, i)),
                shape: node.page < 0 ? shapeNames.indexOf('indexable') : shapeNames.indexOf(shapeOf(node)),
              },
            ],
      ),
    );
    untrack(() => drawing?.draw(view, width, height));
  });
  $effect(() => drawing?.draw(view, width, height));
  const AT_REST = 12;
  /** What matters most is written first: what is looked at, what is near it, then the largest. */
  const bySize = $derived([...nodes.keys()].sort((a, b) => nodes[b].radius - nodes[a].radius));
  const order = $derived.by(() => {
    const shown = bySize.filter((node) => !hidden.has(nodes[node].category));
    // What is small is written when it is looked at more closely.
    if (focus < 0) return shown.slice(0, Math.ceil(AT_REST * (view.scale / whole.scale) ** 2));
    const close = shown.filter((node) => near.has(node) && node !== focus);
    return [focus, ...(chosen >= 0 ? [chosen] : []), ...close];
  });
  const MOST_NAMED = 12;
  const LEAST_NAMED = 5;
  /** Communities that are named, at the middle of their pages. */
  const communities = $derived(
    net.communities.slice(0, MOST_NAMED).flatMap(({ number, pages, around: name }) => {
      const own = nodes.filter(({ community }) => community === number);
      if (pages < LEAST_NAMED || own.length === 0) return [];
      const mean = (values: number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
      return [{ number, pages, name, x: mean(own.map(({ x }) => x)), y: mean(own.map(({ y }) => y)) }];
    }),
  );
  const hasGroups = $derived(nodes[0]?.page < 0);
  const aroundOf = $derived(new Map(net.communities.map(({ number, around: name }) => [number, name])));
  const size = $derived(textSize(view.scale / whole.scale));
  const labels = $derived(
    written(
      [
        ...(focus >= 0 || hasGroups ? [] : communities).map((one): Wanted => ({
          ...{ ...pixelsOf(view, one), key: `community ${one.number}`, size: size + 2, weight: 650, isCentred: true },
          text: texts.communityLabel(one.name, one.pages),
        })),
        ...new Set(order).values().map((i): Wanted => ({
          ...{ ...pixelsOf(view, nodes[i]), key: String(i), size, weight: i === focus ? 650 : 400 },
          text: texts.nodeLabel(nodes[i], aroundOf.get(nodes[i].community)),
        })),
      ],
      paper,
    ),
  );

  let dragged: { node: number; x: number; y: number; hasMoved: boolean } | null = null;
  const placeOf = (event: PointerEvent | WheelEvent | MouseEvent) => {
    const { left, top } = canvas!.getBoundingClientRect();
    return { x: event.clientX - left, y: event.clientY - top };
  };
  function onpointerdown(event: PointerEvent) {
    if (event.button !== 0) return;
    const { x, y } = placeOf(event);
    dragged = { node: nodeAt(nodes, view, x, y), x, y, hasMoved: false };
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
  }
  const LEAST_MOVE = 3;
  function onpointermove(event: PointerEvent) {
    const { x, y } = placeOf(event);
    if (!dragged) {
      const found = nodeAt(nodes, view, x, y);
      if (found !== pointed) onpoint(nodes[found] ?? null, x, y);
      pointed = found;
      return;
    }
    const [dx, dy] = [x - dragged.x, y - dragged.y];
    if (!dragged.hasMoved && Math.hypot(dx, dy) < LEAST_MOVE) return;
    const node = nodes[dragged.node];
    if (!node) view = { ...view, left: view.left + dx, top: view.top + dy };
    else {
      if (!dragged.hasMoved) before = [...before, { id: node.id, was: moved.get(node.id) }];
      moved.set(node.id, { x: node.x + dx / view.scale, y: node.y + dy / view.scale });
    }
    dragged = { ...dragged, x, y, hasMoved: true };
  }
  function onpointerup() {
    if (dragged && !dragged.hasMoved && nodes[dragged.node]) onpick(nodes[dragged.node]);
    dragged = null;
  }
  function ondblclick(event: MouseEvent) {
    const { x, y } = placeOf(event);
    const node = nodes[nodeAt(nodes, view, x, y)];
    if (node) onopen(node);
  }
  const MOST_ZOOM = 8;
  let resting: ReturnType<typeof setTimeout>;
  function onwheel(event: WheelEvent) {
    event.preventDefault();
    const { x, y } = placeOf(event);
    const now = view.scale / whole.scale;
    const next = Math.min(MOST_ZOOM, Math.max(1, now * Math.exp(-event.deltaY / 400)));
    view = next === 1 ? whole : zoomedBy(view, next / now, x, y);
    clearTimeout(resting);
    resting = setTimeout(() => onzoom(Number(next.toFixed(2))), 400);
  }
  export const pan = (dx: number, dy: number) => (view = { ...view, left: view.left + dx, top: view.top + dy });
  const line = (edge: number) => {
    const [a, b] = [pixelsOf(view, nodes[net.edges.from[edge]]), pixelsOf(view, nodes[net.edges.to[edge]])];
    return `M${a.x.toFixed(1)} ${a.y.toFixed(1)}L${b.x.toFixed(1)} ${b.y.toFixed(1)}`;
  };
  /** Draws all as SVG, for a file; what shows it then is taken away again. */
  let svg = $state<SVGSVGElement>();
  let isSaved = $state(false);
  export async function asSvg(): Promise<SVGSVGElement> {
    isSaved = true;
    await new Promise(requestAnimationFrame);
    setTimeout(() => (isSaved = false));
    return svg!;
  }
</script>

<!-- Keys are those of the map around it. -->
<!-- svelte-ignore a11y_no_static_element_interactions -->
<div
  class="relative touch-none overflow-hidden {pointed >= 0 ? 'cursor-pointer' : 'cursor-grab'}"
  style:width="{width}px"
  style:height="{height}px"
  {onpointerdown}
  {onpointermove}
  {onpointerup}
  onpointerleave={() => ((pointed = -1), onpoint(null, 0, 0))}
  {ondblclick}
  {onwheel}
>
  <canvas
    bind:this={canvas}
    class="absolute inset-0"
    style:width="{width}px"
    style:height="{height}px"
    aria-hidden="true"
  ></canvas>
  <svg bind:this={svg} class="pointer-events-none absolute inset-0" {width} {height}>
    {#if isStatic || isSaved}
      {#each drawnEdges as edge (edge)}
        <path d={line(edge)} stroke="currentColor" stroke-width="1" opacity={faintness} fill="none" />
      {/each}
      {#each ofFocus as edge (edge)}
        <path d={line(edge)} stroke={net.edges.from[edge] === focus ? OUT : IN} stroke-width="1" fill="none" />
      {/each}
      {#each nodes as node, i (node.id)}
        {#if !hidden.has(node.category)}
          {@const { x, y, radius } = pixelsOf(view, node)}
          {@const {
            filled,
            line: path,
            width: wide,
            dashes,
          } = verdictShapes[node.page < 0 ? 'indexable' : shapeOf(node)]}
          {@const scale = (1.2 * radius) / 6}
          <g transform="translate({x - 6 * scale} {y - 6 * scale}) scale({scale})" opacity={opacityOf(node, i)}>
            {#if path}<path
                d={path}
                fill="none"
                stroke={inkFor(node)}
                stroke-width={wide}
                stroke-dasharray={dashes}
              />{/if}
            {#if filled}<path d={filled} fill={inkFor(node)} />{/if}
          </g>
        {/if}
      {/each}
    {/if}
    {#if net.apart}
      {@const { x, y } = pixelsOf(view, net.apart)}
      <text {x} y={y - 6} font-size="11" fill="var(--quiet)">{texts.apart(net.apart.nodes, hasGroups)}</text>
    {/if}
    {#if way.length > 1}
      <polyline
        points={way.map((node) => `${pixelsOf(view, nodes[node]).x},${pixelsOf(view, nodes[node]).y}`).join(' ')}
        fill="none"
        stroke="var(--color-primary)"
        stroke-width="4"
        opacity="0.45"
      />
    {/if}
    {#each nodes as node (node.id)}
      {#if hanging.has(node.page)}
        {@const { x, y, radius } = pixelsOf(view, node)}
        <circle cx={x} cy={y} r={radius + 2.5} fill="none" stroke="var(--lost)" stroke-width="1.2" />
      {/if}
    {/each}
    {#if at >= 0}
      {@const { x, y, radius } = pixelsOf(view, nodes[at])}
      <circle cx={x} cy={y} r={radius + 5} fill="none" stroke="var(--color-primary)" stroke-width="2.5" />
    {/if}
    {#if chosen >= 0 && nodes[chosen]}
      {@const { x, y, radius } = pixelsOf(view, nodes[chosen])}
      <circle
        cx={x}
        cy={y}
        r={radius + 5}
        fill="none"
        stroke="var(--color-primary)"
        stroke-width="2"
        stroke-dasharray="3 2"
      />
    {/if}
    {#each labels as { key, x, y, text, size: high, weight, isCentred } (key)}
      {#if !isCentred}
        <text
          {x}
          y={y + high}
          font-size={high}
          font-weight={weight}
          class="halo"
          fill="currentColor"
          opacity={focus >= 0 && !near.has(Number(key)) ? 0.6 : 1}
          data-label>{text}</text
        >
      {/if}
    {/each}
  </svg>
  {#each labels as { key, x, y, text, size: high, width: wide, height: tall, isCentred } (key)}
    {#if isCentred}
      {@const number = Number(key.split(' ')[1])}
      <button
        type="button"
        class="community absolute rounded text-left leading-none font-semibold whitespace-nowrap hover:text-primary"
        style:left="{x}px"
        style:top="{y}px"
        style:width="{wide}px"
        style:height="{tall}px"
        style:font-size="{high}px"
        title={texts.selectCommunity(number)}
        data-label
        onpointerdown={(event) => event.stopPropagation()}
        onpointerup={(event) => event.stopPropagation()}
        onpointermove={(event) => (event.stopPropagation(), (pointed = -1))}
        onclick={() => oncommunity(number)}>{text}</button
      >
    {/if}
  {/each}
</div>

<style>
  .halo {
    paint-order: stroke;
    stroke: var(--color-base-100);
    stroke-width: 3px;
    stroke-linejoin: round;
  }
  .community {
    background: color-mix(in oklab, var(--color-base-100) 82%, transparent);
  }
</style>
