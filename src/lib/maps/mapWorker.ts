/** The worker behind the maps: what they are drawn of is read, grouped and laid out here. */
import { verdicts } from '$core/facts';
import type { ColumnName } from '$core/facts';
import {
  bandsOf,
  bandWithin,
  colourBy,
  colourMarked,
  flowsBetween,
  folderTree,
  layBands,
  layIcicle,
  layNodes,
  openCellOf,
  routeTree,
  saidOf,
  wayTo,
} from '$core/maps';
import type { Cell, Scene } from '$core/maps';
import { loadedOnce } from '$core/promises';
import { hasBit, numbersOf } from '$core/selection/bits';
import type { Bits } from '$core/selection/bits';
import { narrowed } from '$core/selection/language';
import { addressAt, decodeSnapshot, pageOf, readPartStream } from '$core/snapshot';
import type { SnapshotParts } from '$core/snapshot';
import { viewOf } from '$core/view';
import type { View } from '$core/view';
import { answerQuestions } from '../worker';
import type { MapAnswer, MapDrawn, MapQuestion, MapState } from './ask';

/** What every picture reads. */
const facts = [
  ...['url', 'host', 'path', 'query', 'section', 'verdict', 'share', 'depth', 'crawler_depth', 'parent'],
  ...['gate_for', 'paging', 'only_paging', 'breadcrumb_parent', 'pages_linking'],
] as ColumnName[];
const MOST_FOUND = 20;

let base = '';
const parts: SnapshotParts = new Map();
const known = new Set<ColumnName>();

async function read(query: Record<string, string>): Promise<SnapshotParts> {
  const response = await fetch(`${base}/map?${new URLSearchParams(query)}`);
  if (!response.ok) {
    const told = (await response.json().catch(() => null)) as { message?: string } | null;
    throw new Error(told?.message ?? String(response.status));
  }
  return readPartStream(new Uint8Array(await response.arrayBuffer()));
}
async function readInto(query: Record<string, string>): Promise<SnapshotParts> {
  const got = await read(query);
  for (const [name, bytes] of got) parts.set(name, bytes);
  return got;
}

async function readFacts(names: ColumnName[]): Promise<SnapshotParts | null> {
  const missing = names.filter((name) => !known.has(name));
  if (missing.length === 0) return null;
  const got = await readInto({ facts: missing.join(',') });
  missing.forEach((name) => known.add(name));
  return got;
}

const opened = loadedOnce(async (): Promise<View> => {
  const got = (await readFacts(facts))!;
  const stored = JSON.parse(new TextDecoder().decode(got.get('stored'))) as string[];
  return viewOf(decodeSnapshot(parts, stored));
});
const readLinks = loadedOnce(() => readInto({ links: 'true' }));

/** The pages of selections that were asked for last. */
const marks = new Map<string, Promise<Bits>>();
const MOST_MARKS = 8;
function marked(select: string, { count }: View): Promise<Bits> {
  let bits = marks.get(select);
  if (!bits) {
    bits = read({ mark: select }).then((got) => {
      const bytes = Uint8Array.from(got.get('marked')!);
      return { size: count, words: new Uint32Array(bytes.buffer) };
    });
    bits.catch(() => marks.delete(select));
    marks.set(select, bits);
    if (marks.size > MOST_MARKS) marks.delete(marks.keys().next().value!);
  }
  return bits;
}

/** What was drawn last: flows are between its cells, and what is found is in its boxes. */
let drawn: { cells: Cell[]; scene: Scene; boxOf: (page: number) => { item: string; box: string } } | null = null;

async function draw(state: MapState): Promise<MapDrawn> {
  const view = await opened();
  const { colour, size, picture, item } = state;
  await readFacts([...(colour === 'selection' ? [] : [colour]), ...(size ? [size] : [])]);
  const pages = state.only
    ? numbersOf(await marked(state.only, view))
    : Uint32Array.from({ length: view.count }, (_, page) => page);
  const selected = state.select ? await marked(state.select, view) : null;
  const colouring =
    colour === 'selection' && selected
      ? colourMarked(selected, state.select, pages)
      : colourBy(view, colour === 'selection' ? 'verdict' : colour, pages);
  const drawing = {
    colouring,
    sizes: size ? (view.column(size) as ArrayLike<number>) : null,
    width: state.width,
    height: state.height,
  };
  const rest = { categories: colouring.categories, isScale: colouring.isScale, said: saidOf(view, pages) };
  if (picture === '') {
    const open = openCellOf(item);
    const within = open && bandWithin(view, pages, state.reader, open);
    const bands = within ? [within] : bandsOf(view, pages, state.reader);
    const scene = layBands(bands, drawing);
    const cells = bands.flatMap((band) => band.cells);
    const boxes = new Map(cells.flatMap((cell) => Array.from(cell.pages, (page) => [page, cell.id] as const)));
    drawn = { cells, scene, boxOf: (page) => ({ item: within ? item : '', box: boxes.get(page) ?? '' }) };
    const dimmed = selected ? scene.dots.flatMap(({ page }) => (hasBit(selected, page) ? [] : [page])) : [];
    const crumbs = within
      ? [
          { item: '', name: null },
          ...(open.folder === null ? [] : [{ item: JSON.stringify({ ...open, folder: null }), name: open.section }]),
        ]
      : [];
    return { scene, ...rest, crumbs, dimmed };
  }
  if (picture === 'routes' && state.from) await readLinks();
  const root =
    picture === 'routes' ? routeTree(view, pages, state.from ? pageOf(view, state.from) : -1) : folderTree(view, pages);
  const way = root ? wayTo(root, item) : [];
  const focus = way[way.length - 1] ?? root;
  const lay = state.shape === 'nodes' ? layNodes : layIcicle;
  const scene = focus
    ? lay(view, focus, drawing)
    : { width: state.width, height: 1, boxes: [], dots: [], captions: [], joints: [] };
  const shown = new Set(scene.boxes.map(({ id }) => id));
  drawn = {
    cells: [],
    scene,
    boxOf: (page) => {
      const all = root ? wayTo(root, addressAt(view, page)).map(({ id }) => id) : [];
      const seen = all.findLast((id) => shown.has(id));
      return seen
        ? { item, box: seen }
        : { item: all[Math.max(0, all.length - 2)] ?? '', box: all[all.length - 1] ?? '' };
    },
  };
  const crumbs = way.slice(0, -1).map(({ id, name }) => ({ item: id, name }));
  return { scene, ...rest, crumbs, dimmed: [] };
}

/** What is selected on a map of some pages is among them. */
function withinOnly(drawn: MapDrawn, only: string): MapDrawn {
  for (const box of only ? drawn.scene.boxes : []) if (box.select) box.select = narrowed(only, box.select);
  return drawn;
}

async function answerTo(question: MapQuestion): Promise<MapAnswer> {
  if (question.ask === 'begin') {
    base = question.base;
    await opened();
    return { to: 'begin' };
  }
  const view = await opened();
  switch (question.ask) {
    case 'draw':
      return { to: 'draw', drawn: withinOnly(await draw(question.state), question.state.only) };
    case 'flows':
      await readLinks();
      return { to: 'flows', flows: drawn ? flowsBetween(view, drawn.cells) : [] };
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
    case 'find': {
      const wanted = question.text.toLowerCase();
      const found: { address: string; item: string; box: string }[] = [];
      for (let page = 0; page < view.count && found.length < MOST_FOUND && wanted; page++) {
        const address = addressAt(view, page);
        if (!address.toLowerCase().includes(wanted)) continue;
        found.push({ address, ...(drawn?.boxOf(page) ?? { item: '', box: '' }) });
      }
      return { to: 'find', found };
    }
  }
}

answerQuestions(answerTo);
