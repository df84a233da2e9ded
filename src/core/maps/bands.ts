/**
 * Bands: depth downwards, sections across. A cell holds the pages of one section at one depth; those without a route
 * have a band of their own at the foot.
 */
import { CLICK, depthFact, noRouteSelection } from '../reach';
import type { LinkGraph, Reader } from '../reach';
import { quote } from '../selection';
import { textAt } from '../snapshot';
import type { View } from '../view';
import { byNextFolder, directlyIn, mapSections } from './folders';
import { partsOf, radiiBy } from './scene';
import type { Box, Caption, Dot, Drawing, Flow, Scene } from './scene';

/** A cell that is looked into: its depth (null without a route), its section, and a folder within. */
export interface OpenCell {
  depth: number | null;
  section: string | null;
  folder: string | null;
}

/** Reads how an address of a screen names a cell; null when it names none. */
export function openCellOf(item: string): OpenCell | null {
  try {
    const { depth, section, folder } = JSON.parse(item) as Record<keyof OpenCell, unknown>;
    const textOf = (value: unknown) => (typeof value === 'string' ? value : null);
    return { depth: typeof depth === 'number' ? depth : null, section: textOf(section), folder: textOf(folder) };
  } catch {
    return null;
  }
}

export interface Cell {
  /** What names it as an open cell, too. */
  id: string;
  name: string | null;
  /** Of how many sections its pages are left over. */
  folded?: number;
  depth: number | null;
  pages: Uint32Array;
  select: string;
  opens: boolean;
}

export interface Band {
  depth: number | null;
  /** Whether deeper pages are in it, too. */
  isOpenEnded?: boolean;
  pages: number;
  cells: Cell[];
}

/** Cells of a band beside each other; smaller sections share the last. */
const MOST_CELLS = 14;
/** Bands below each other; deeper pages share the last. */
const MOST_BANDS = 11;
/** Cells that can be opened hold more pages than this. */
const LEAST_OPEN = 2;

const idOf = (open: OpenCell) => JSON.stringify(open);
const depthTest = (reader: Reader, depth: number | null, isOpenEnded = false) =>
  depth === null ? noRouteSelection(reader) : `${depthFact(reader)} ${isOpenEnded ? '>=' : '='} ${depth}`;

/** Groups by their sizes, with those after the first ones folded into one. */
function cellsOf(
  depth: number | null,
  groups: ReadonlyMap<string | null, readonly number[]>,
  within: string,
  testOf: (name: string | null) => string,
  openOf: (name: string | null) => OpenCell,
): Cell[] {
  const sorted = [...groups].sort(([a, x], [b, y]) => y.length - x.length || ((a ?? '') < (b ?? '') ? -1 : 1));
  const own = sorted.length > MOST_CELLS ? sorted.slice(0, MOST_CELLS - 1) : sorted;
  const cells = own.map(([name, pages]): Cell => ({
    id: idOf(openOf(name)),
    name,
    depth,
    pages: Uint32Array.from(pages),
    select: `${within} and ${testOf(name)}`,
    opens: pages.length > LEAST_OPEN,
  }));
  const rest = sorted.slice(own.length);
  if (rest.length > 0)
    cells.push({
      id: `${depth ?? ''} …`,
      name: null,
      folded: rest.length,
      depth,
      pages: Uint32Array.from(rest.flatMap(([, pages]) => pages)),
      select: [within, ...own.map(([name]) => `not (${testOf(name)})`)].join(' and '),
      opens: false,
    });
  return cells;
}

/** The bands of some pages, from the start down. */
export function bandsOf(view: View, pages: Uint32Array, reader: Reader): Band[] {
  const depths = view.column(depthFact(reader));
  const { nameOf, testOf } = mapSections(view);
  const deepest = pages.reduce((most, page) => Math.max(most, depths[page]), 0);
  const last = deepest > MOST_BANDS ? MOST_BANDS : Infinity;
  const bands = new Map<number, Map<string | null, number[]>>();
  for (const page of pages) {
    const depth = Math.min(last, depths[page]);
    let band = bands.get(depth);
    if (!band) bands.set(depth, (band = new Map()));
    const name = nameOf(page);
    const cell = band.get(name);
    if (cell) cell.push(page);
    else band.set(name, [page]);
  }
  const order = (depth: number) => (depth < 0 ? Infinity : depth);
  return [...bands]
    .sort(([a], [b]) => order(a) - order(b))
    .map(([at, sections]) => {
      const depth = at < 0 ? null : at;
      const isOpenEnded = at === last;
      const cells = cellsOf(depth, sections, depthTest(reader, depth, isOpenEnded), testOf, (section) => ({
        depth,
        section,
        folder: null,
      }));
      const shown = isOpenEnded ? cells.map((cell) => ({ ...cell, opens: false })) : cells;
      return { depth, isOpenEnded, pages: cells.reduce((sum, cell) => sum + cell.pages.length, 0), cells: shown };
    });
}

/** The groups within a cell, by folder, as one band; null when it has no pages. */
export function bandWithin(view: View, pages: Uint32Array, reader: Reader, open: OpenCell): Band | null {
  const depths = view.column(depthFact(reader));
  const { nameOf, testOf } = mapSections(view);
  const isWithin = (page: number) =>
    (depths[page] < 0 ? null : depths[page]) === open.depth &&
    nameOf(page) === open.section &&
    (open.folder === null || (textAt(view, 'path', page) ?? '').startsWith(open.folder));
  const own = pages.filter(isWithin);
  if (own.length === 0) return null;
  const tests = [depthTest(reader, open.depth), testOf(open.section)];
  const within = [...tests, ...(open.folder ? [`path starts ${quote(open.folder)}`] : [])].join(' and ');
  const { shared, groups } = byNextFolder(view, own);
  const cells = cellsOf(
    open.depth,
    groups,
    within,
    (folder) => (folder === shared ? directlyIn(shared) : `path starts ${quote(folder ?? '/')}`),
    (folder) => ({ ...open, folder }),
  );
  return {
    depth: open.depth,
    pages: own.length,
    cells: cells.map((cell) => ({ ...cell, opens: cell.opens && groups.size > 1 && cell.name !== null })),
  };
}

/** By page the number of its cell; −1 for pages in none. */
export function cellOfPages(count: number, cells: readonly Cell[]): Int32Array {
  const of = new Int32Array(count).fill(-1);
  cells.forEach(({ pages }, cell) => pages.forEach((page) => (of[page] = cell)));
  return of;
}

/** The click links between cells, those within one left out, the heaviest first. */
export function flowsBetween({ count, offsets, targets, cost }: LinkGraph, cells: readonly Cell[]): Flow[] {
  const of = cellOfPages(count, cells);
  const size = cells.length;
  const counts = new Float64Array(size * size);
  for (let page = 0; page < count; page++) {
    const from = of[page];
    if (from < 0) continue;
    for (let link = offsets[page]; link < offsets[page + 1]; link++) {
      if (cost[link] !== CLICK || targets[link] >= count) continue;
      const to = of[targets[link]];
      if (to >= 0 && to !== from) counts[from * size + to]++;
    }
  }
  const flows: Flow[] = [];
  counts.forEach((links, at) => {
    if (links > 0) flows.push({ from: cells[Math.floor(at / size)].id, to: cells[at % size].id, links });
  });
  return flows.sort((a, b) => b.links - a.links);
}

const LEFT = 78;
const RIGHT = 10;
const BAND_GAP = 6;
const CELL_GAP = 8;
const TITLE = 20;
const PADDING = 7;
const LEAST_CELL = 58;
/** Dots are drawn of so many pages at most; of more, a strip for each cell. */
const MOST_DOTS = 4000;
/** Between the middles of dots, the first that fits. */
const PITCHES = [15, 13, 11, 10, 9, 8, 7];
const LEAST_STRIP = 14;
const MOST_STRIP = 70;

/** The widths of the cells of each band: on one scale of pages, and none too narrow for its name. */
function widthsOf(bands: readonly Band[], room: number): number[][] {
  const perPage = bands.map(
    ({ cells, pages }) => (room - cells.length * LEAST_CELL - (cells.length - 1) * CELL_GAP) / pages,
  );
  const scale = Math.max(0, Math.min(...perPage));
  return bands.map(({ cells }) => cells.map((cell) => LEAST_CELL + scale * cell.pages.length));
}

const rowsOf = (pages: number, width: number, pitch: number) =>
  Math.ceil(pages / Math.max(1, Math.floor((width - 2 * PADDING) / pitch)));

/** How high what is in the cells of each band is, with dots this far from each other. */
function heightsOf(bands: readonly Band[], widths: number[][], pitch: number): number[] {
  return bands.map(
    ({ cells }, band) => pitch * Math.max(...cells.map((cell, i) => rowsOf(cell.pages.length, widths[band][i], pitch))),
  );
}

/** Lays bands out on a paper, which may become longer than it should be. */
export function layBands(bands: readonly Band[], { colouring, sizes, width, height }: Drawing): Scene {
  const all = bands.reduce((sum, { pages }) => sum + pages, 0);
  const widths = widthsOf(bands, width - LEFT - RIGHT);
  const heads = bands.length * (TITLE + PADDING + BAND_GAP);
  const hasDots = all <= MOST_DOTS;
  const needed = (pitch: number) => heads + heightsOf(bands, widths, pitch).reduce((sum, high) => sum + high, 0);
  const pitch = PITCHES.find((one) => needed(one) <= height) ?? PITCHES[PITCHES.length - 1];
  const roots = bands.reduce((sum, { pages }) => sum + Math.sqrt(pages), 0);
  const free = Math.max(0, height - heads);
  const inner = hasDots
    ? heightsOf(bands, widths, pitch)
    : bands.map(({ pages }) => Math.min(MOST_STRIP, Math.max(LEAST_STRIP, (free * Math.sqrt(pages)) / roots)));
  const boxes: Box[] = [];
  const dots: Dot[] = [];
  const captions: Caption[] = [];
  const radii = hasDots
    ? radiiBy(
        sizes,
        Uint32Array.from(bands.flatMap(({ cells }) => cells.flatMap((c) => [...c.pages]))),
        2,
        0.48 * pitch,
      )
    : null;
  let y = 0;
  bands.forEach(({ depth, isOpenEnded, pages, cells }, band) => {
    const high = TITLE + inner[band] + PADDING;
    captions.push({ x: 8, y, width: LEFT - 14, depth, isOpenEnded, pages });
    let x = LEFT;
    cells.forEach((cell, i) => {
      const wide = widths[band][i];
      const { id, name, folded, select, opens } = cell;
      const isLost = depth === null;
      boxes.push({
        ...{ id, x, y, width: wide, height: high, name, folded, select, opens, isLost },
        pages: cell.pages.length,
        parts: partsOf(cell.pages, colouring.of, colouring.categories.length),
      });
      if (radii) {
        const inRow = Math.max(1, Math.floor((wide - 2 * PADDING) / pitch));
        const sorted = sizes ? [...cell.pages].sort((a, b) => sizes[b] - sizes[a]) : [...cell.pages];
        sorted.forEach((page, at) => {
          const column = at % inRow;
          dots.push({
            x: x + PADDING + (column + 0.5) * pitch,
            y: y + TITLE + (Math.floor(at / inRow) + 0.5) * pitch,
            radius: radii.get(page)!,
            page,
            category: colouring.of[page],
            isLost,
          });
        });
      }
      x += wide + CELL_GAP;
    });
    y += high + BAND_GAP;
  });
  return { width, height: Math.max(y, 1), boxes, dots, captions, joints: [] };
}
