/** The worker behind the maps: what they are drawn of is read, grouped and laid out here. */
import { verdicts } from '$core/facts';
import {
  bandsOf,
  bandWithin,
  colourBy,
  colourMarked,
  flowsBetween,
  folderTree,
  hangingOn,
  layBands,
  layIcicle,
  layNodes,
  neighboursOf,
  openCellOf,
  routeTree,
  saidOf,
  wayBetween,
  wayTo,
} from '$core/maps';
import type { Cell, Drawing, Neighbour, Scene } from '$core/maps';
import { clickDepths } from '$core/reach';
import type { Reader } from '$core/reach';
import { hasBit, numbersOf } from '$core/selection/bits';
import type { Bits } from '$core/selection/bits';
import { narrowed } from '$core/selection/language';
import { addressAt, pageOf, textAt } from '$core/snapshot';
import type { View } from '$core/view';
import { answerQuestions } from '../worker';
import type { AroundTold, MapAnswer, MapDrawn, MapQuestion, MapState, NeighbourTold } from './ask';
import { crawlReader } from './crawlRead';
import type { CrawlReader } from './crawlRead';
import { netDrawer } from './netDrawer';

const MOST_FOUND = 20;
const noScene = { width: 1, height: 1, boxes: [], dots: [], captions: [], joints: [] } satisfies Scene;

/** Where a page is found on a picture: what must be looked into, and its box there. */
type BoxOf = (page: number) => { item: string; box: string };

interface Drawn {
  scene: Scene;
  crumbs: MapDrawn['crumbs'];
  dimmed?: number[];
  net?: MapDrawn['net'];
  boxOf: BoxOf;
  cells?: Cell[];
}

let crawl: CrawlReader;
let drawNet: ReturnType<typeof netDrawer>;
/** What was drawn last: flows are between its cells, and what is found is in its boxes. */
let last: { cells: Cell[]; boxOf: BoxOf; reader: Reader } | null = null;

function drawBands(
  view: View,
  pages: Uint32Array,
  { item, reader }: MapState,
  drawing: Drawing,
  selected: Bits | null,
): Drawn {
  const open = openCellOf(item);
  const within = open && bandWithin(view, pages, reader, open);
  const bands = within ? [within] : bandsOf(view, pages, reader);
  const scene = layBands(bands, drawing);
  const cells = bands.flatMap((band) => band.cells);
  const boxes = new Map(cells.flatMap((cell) => Array.from(cell.pages, (page) => [page, cell.id] as const)));
  const whole = open && open.folder !== null ? JSON.stringify({ ...open, folder: null }) : null;
  return {
    scene,
    cells,
    boxOf: (page) => ({ item: within ? item : '', box: boxes.get(page) ?? '' }),
    dimmed: selected ? scene.dots.flatMap(({ page }) => (hasBit(selected, page) ? [] : [page])) : [],
    crumbs: within ? [{ item: '', name: null }, ...(whole ? [{ item: whole, name: open.section }] : [])] : [],
  };
}

async function drawTree(view: View, pages: Uint32Array, state: MapState, drawing: Drawing): Promise<Drawn> {
  const { picture, from, item } = state;
  const start = picture === 'routes' && from ? pageOf(view, from) : -1;
  const other =
    start < 0 ? null : { from: start, parent: clickDepths((await crawl.walked(state.reader)).graph, [start]).parent };
  const root = picture === 'routes' ? routeTree(view, pages, other) : folderTree(view, pages);
  const way = root ? wayTo(root, item) : [];
  const focus = way[way.length - 1] ?? root;
  const lay = state.shape === 'nodes' ? layNodes : layIcicle;
  const scene = focus ? lay(view, focus, drawing) : noScene;
  const shown = new Set(scene.boxes.map(({ id }) => id));
  return {
    scene,
    boxOf: (page) => {
      const all = root ? wayTo(root, addressAt(view, page)).map(({ id }) => id) : [];
      const seen = all.findLast((id) => shown.has(id));
      return seen
        ? { item, box: seen }
        : { item: all[Math.max(0, all.length - 2)] ?? '', box: all[all.length - 1] ?? '' };
    },
    crumbs: way.slice(0, -1).map(({ id, name }) => ({ item: id, name })),
  };
}

async function draw(state: MapState): Promise<MapDrawn> {
  const view = await crawl.opened();
  const { colour, marked, size, picture, only, select, reader } = state;
  await crawl.readFacts([colour, ...(size ? [size] : []), ...(picture === 'links' ? (['community'] as const) : [])]);
  const pages = only
    ? numbersOf(await crawl.marked(only))
    : Uint32Array.from({ length: view.count }, (_, page) => page);
  const selected = select ? await crawl.marked(select) : null;
  const colouring =
    marked === '' ? colourBy(view, colour, pages) : colourMarked(await crawl.marked(marked), marked, pages);
  const sizes = size ? (view.column(size) as ArrayLike<number>) : null;
  const drawing = { colouring, sizes, width: state.width, height: state.height };
  const drawn =
    picture === ''
      ? drawBands(view, pages, state, drawing, selected)
      : picture === 'links'
        ? { scene: noScene, ...drawNet(view, await crawl.walked(reader), pages, state, drawing, selected) }
        : await drawTree(view, pages, state, drawing);
  const { scene, crumbs, dimmed = [], net = null, boxOf, cells = [] }: Drawn = drawn;
  last = { cells, boxOf, reader };
  const { categories, isScale } = colouring;
  return { scene, net, crumbs, dimmed, categories, isScale, said: saidOf(view, pages) };
}

/** What is selected on a map of some pages is among them. */
function withinOnly(drawn: MapDrawn, only: string): MapDrawn {
  for (const one of only ? [...drawn.scene.boxes, ...(drawn.net?.nodes ?? [])] : [])
    if (one.select) one.select = narrowed(only, one.select);
  return drawn;
}

async function around(view: View, address: string, from: string, reader: Reader): Promise<AroundTold | null> {
  const page = pageOf(view, address);
  if (page < 0) return null;
  const { graph, incoming, depths } = await crawl.walked(reader);
  const [verdict, share] = [view.column('verdict'), view.column('share')];
  const nameOf = (one: number) => (textAt(view, 'path', one) ?? '/') + (textAt(view, 'query', one) ?? '');
  const told = (neighbour: Neighbour): NeighbourTold => ({
    ...neighbour,
    address: addressAt(view, neighbour.page),
    name: nameOf(neighbour.page),
    verdict: verdict[neighbour.page],
  });
  const { out, in: sources } = neighboursOf(graph, incoming, page);
  const start = from ? pageOf(view, from) : -1;
  return {
    page,
    out: out.map(told),
    in: sources.sort((a, b) => share[b.page] - share[a.page]).map(told),
    hanging: [...hangingOn(graph, depths, page)],
    way:
      start < 0 || start === page
        ? null
        : wayBetween(graph, incoming, share, [start, page]).map((one) => ({ page: one, name: nameOf(one) })),
  };
}

function find(view: View, text: string) {
  const wanted = text.toLowerCase();
  const found: { address: string; item: string; box: string }[] = [];
  for (let page = 0; page < view.count && found.length < MOST_FOUND && wanted; page++) {
    const address = addressAt(view, page);
    if (!address.toLowerCase().includes(wanted)) continue;
    found.push({ address, ...(last?.boxOf(page) ?? { item: '', box: '' }) });
  }
  return found;
}

async function answerTo(question: MapQuestion): Promise<MapAnswer> {
  if (question.ask === 'begin') {
    crawl = crawlReader(question.base);
    drawNet = netDrawer();
    await crawl.opened();
    return { to: 'begin' };
  }
  const view = await crawl.opened();
  switch (question.ask) {
    case 'draw':
      return { to: 'draw', drawn: withinOnly(await draw(question.state), question.state.only) };
    case 'flows':
      return { to: 'flows', flows: last ? flowsBetween((await crawl.walked(last.reader)).links, last.cells) : [] };
    case 'page': {
      const { page } = question;
      const told = {
        address: addressAt(view, page),
        depth: view.column('depth')[page],
        share: view.column('share')[page],
        verdict: verdicts[view.column('verdict')[page]],
        linking: view.column('pages_linking')[page],
      };
      return { to: 'page', told };
    }
    case 'around':
      return { to: 'around', around: await around(view, question.address, question.from, question.reader) };
    case 'find':
      return { to: 'find', found: find(view, question.text) };
  }
}

answerQuestions(answerTo);
