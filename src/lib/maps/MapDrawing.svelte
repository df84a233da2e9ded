<!-- A map as it was laid out: boxes, dots, lines between them. -->
<script lang="ts">
  import type { ColumnName, Verdict } from '$core/facts';
  import type { Box, Flow } from '$core/maps';
  import { verdictShapes } from '../list/verdictShapes';
  import type { MapDrawn } from './ask';
  import { fitted } from '../shell/textWidth';
  import { inkOf } from './inks';
  import { texts } from './texts';

  interface Props {
    drawn: MapDrawn;
    /** What colours tell; null for which pages are marked. */
    by: ColumnName | null;
    /** Of the box that is pointed at by key. */
    current: string;
    /** The selection; the box that has it is marked. */
    select: string;
    hidden: ReadonlySet<number>;
    flows: readonly Flow[];
    onpick: (box: Box) => void;
    onopen: (box: Box) => void;
    onpage: (page: number) => void;
    onpoint: (page: number | null, x: number, y: number) => void;
  }
  let { drawn, by, current, select, hidden, flows, onpick, onopen, onpage, onpoint }: Props = $props();
  const { scene, categories, isScale } = $derived(drawn);
  const inks = $derived(categories.map((one, i) => inkOf(one, i, categories.length, isScale, by)));
  /** The shape of a category: verdicts have theirs, all else is a disc. */
  const shapeOf = (category: number): Verdict => {
    const { value } = categories[category];
    return by === 'verdict' && value.is === 'value' ? (value.value as Verdict) : 'indexable';
  };
  const dimmed = $derived(new Set(drawn.dimmed));
  const boxes = $derived(new Map(scene.boxes.map((box) => [box.id, box])));
  const hasDots = $derived(scene.dots.length > 0);
  const isTree = $derived(scene.captions.length === 0);
  const LABEL = 13;
  /** Lower boxes of trees have no room for a name, and are nothing but their bar. */
  const LEAST_NAMED = 17;
  const BAR = 4;
  const barOf = ({ height }: Box) => (height < LEAST_NAMED ? height : BAR);
  const MOST_FLOWS = 8;

  /** The parts of a box as pieces of its width. */
  function strip({ x, width, parts, pages }: Box) {
    let at = x;
    return parts.flatMap((count, category) => {
      const wide = (width * count) / Math.max(1, pages);
      const piece = { x: at, width: wide, category };
      at += wide;
      return count > 0 && !hidden.has(category) ? [piece] : [];
    });
  }
  const shown = $derived(
    flows
      .filter(({ from, to }) => (from === current || to === current) && boxes.has(from) && boxes.has(to))
      .slice(0, MOST_FLOWS),
  );
  const heaviest = $derived(shown[0]?.links ?? 1);
  /** A curve from the foot of one box to the head of another. */
  function curve(from: Box, to: Box): string {
    const [x1, x2] = [from.x + from.width / 2, to.x + to.width / 2];
    const isDown = from.y < to.y;
    const [y1, y2] = [isDown ? from.y + from.height : from.y, isDown ? to.y : to.y + to.height];
    const bend = from.y === to.y ? -24 : (y2 - y1) / 2;
    return from.y === to.y
      ? `M${x1} ${from.y}C${x1} ${from.y + bend} ${x2} ${from.y + bend} ${x2} ${from.y}`
      : `M${x1} ${y1}C${x1} ${y1 + bend} ${x2} ${y2 - bend} ${x2} ${y2}`;
  }
  const joint = (from: Box, to: Box) => {
    const [x1, y1, x2, y2] = [from.x + from.width, from.y + from.height / 2, to.x, to.y + to.height / 2];
    return `M${x1} ${y1}C${(x1 + x2) / 2} ${y1} ${(x1 + x2) / 2} ${y2} ${x2} ${y2}`;
  };
</script>

<!-- Keys are those of the map around it. -->
<!-- svelte-ignore a11y_click_events_have_key_events -->
<!-- svelte-ignore a11y_no_static_element_interactions -->
<svg width={scene.width} height={scene.height} class="block" font-size="12" onpointerleave={() => onpoint(null, 0, 0)}>
  {#each scene.joints as { from, to } (`${from} ${to}`)}
    <path d={joint(boxes.get(from)!, boxes.get(to)!)} fill="none" stroke="var(--color-base-300)" stroke-width="1.5" />
  {/each}
  {#each scene.captions as { x, y, width, depth, isOpenEnded, pages } (depth)}
    <text {x} y={y + 15} font-weight="700" fill={depth === null ? 'var(--lost)' : 'currentColor'}
      >{fitted(texts.clicks(depth, isOpenEnded), width, { weight: 700 })}</text
    >
    <text {x} y={y + 30} font-size="11" fill="var(--quiet)">{fitted(texts.pages(pages), width)}</text>
  {/each}
  {#each scene.boxes as box (box.id)}
    {@const top = isTree ? 0 : LABEL + 5}
    <g class="cursor-pointer" onclick={() => onpick(box)} ondblclick={() => onopen(box)} data-box={box.id}>
      <title>{texts.box(box)}</title>
      <rect
        x={box.x}
        y={box.y}
        width={box.width}
        height={box.height}
        rx={Math.min(4, box.height / 4)}
        fill={box.isLost ? 'color-mix(in oklab, var(--lost) 14%, var(--color-base-100))' : 'var(--color-base-200)'}
        stroke={box.id === current || (select !== '' && box.select === select)
          ? 'var(--color-primary)'
          : box.isLost
            ? 'var(--lost)'
            : 'var(--color-base-300)'}
        stroke-width={box.id === current || (select !== '' && box.select === select) ? 2.5 : 1}
        stroke-dasharray={box.isLost || box.isBare ? '4 3' : undefined}
      />
      {#if !hasDots || isTree}
        {#each strip(box) as piece (piece.category)}
          <rect
            x={piece.x}
            y={isTree ? box.y + box.height - barOf(box) : box.y + top}
            width={piece.width}
            height={isTree ? barOf(box) : Math.max(1, box.height - top - 4)}
            fill={inks[piece.category]}
          />
        {/each}
      {/if}
      {#if box.height >= LEAST_NAMED}
        {@const weight = box.isGate ? 650 : 400}
        {@const name = `${box.isGate ? '◂ ' : ''}${texts.named(box, isTree)}`}
        <text x={box.x + 6} y={box.y + LABEL} fill="currentColor" font-weight={weight}
          >{fitted(name, box.width - 10, { keepsEnd: isTree, weight })}</text
        >
      {/if}
    </g>
  {/each}
  {#each scene.dots as { x, y, radius, page, category, isLost } (page)}
    {#if !hidden.has(category)}
      {@const { filled, line, width, dashes } = verdictShapes[isLost ? 'lost' : shapeOf(category)]}
      {@const ink = isLost && by === 'verdict' ? 'var(--lost)' : inks[category]}
      {@const scale = (1.3 * radius) / 6}
      <g
        transform="translate({x - 6 * scale} {y - 6 * scale}) scale({scale})"
        class="cursor-pointer"
        opacity={dimmed.has(page) ? 0.22 : 1}
        onclick={(event) => (event.stopPropagation(), onpage(page))}
        onpointerenter={() => onpoint(page, x, y)}
      >
        <rect width="12" height="12" fill="transparent" />
        {#if line}<path d={line} fill="none" stroke={ink} stroke-width={width} stroke-dasharray={dashes} />{/if}
        {#if filled}<path d={filled} fill={ink} />{/if}
      </g>
    {/if}
  {/each}
  {#each shown as { from, to, links } (`${from} ${to}`)}
    <path
      d={curve(boxes.get(from)!, boxes.get(to)!)}
      fill="none"
      stroke="var(--color-primary)"
      stroke-width={1.5 + (7 * links) / heaviest}
      opacity="0.4"
      pointer-events="none"><title>{texts.flow(links)}</title></path
    >
  {/each}
</svg>
