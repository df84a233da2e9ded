/** Questions that screens ask of open snapshots. */
import { isColumnName } from '$core/facts';
import type { ColumnName } from '$core/facts';
import {
  anchorList,
  changedEditList,
  changedLinkList,
  changeList,
  columnOf,
  editList,
  hostList,
  isListAcross,
  linkList,
  listColumns,
  listedOf,
  numberCells,
  orderRows,
  pageGroups,
  pageList,
  summaryOf,
} from '$core/lists';
import type { Bin, CellValue, List, ListName, ListWindow } from '$core/lists';
import type { Comparison } from '$core/compare';
import {
  evaluate,
  evaluateLinks,
  NO_EARLIER,
  evaluateRows,
  hasBit,
  noBits,
  numbersOf,
  parseLinkSelection,
  parseSelection,
  setBit,
} from '$core/selection';
import type { Bits, Selection, SelectionFault } from '$core/selection';
import { isText } from '$core/snapshot';
import { cacheOf } from './cache';
import type { ComparedView, View } from '$core/view';
import { isError, selectionFault } from '$core/errors';

/** A list as a screen asks for it. */
export interface ListView {
  list: ListName;
  /** A selection of pages or of links, whichever the list is of. */
  select: string;
  /** A column, `column:desc`, or '' for the order in which rows come by themselves. */
  sort: string;
  /** The fact by which pages are grouped. */
  by: ColumnName;
}

/** What a selection holds, or what is wrong with it. */
interface Selected {
  /** None when the selection has a fault: it must never be taken for all. */
  bits: Bits;
  fault: SelectionFault | null;
}

/** What a selection is answered over: the pages or links of a snapshot, or those of the two crawls that it compares. */
type Over = 'pages' | 'links' | 'pages of both' | 'links then';

const sizeOf: Record<Over, (snapshot: View) => number> = {
  pages: ({ count }) => count,
  links: ({ links }) => links.target.length,
  'pages of both': (snapshot) => snapshot.comparison?.rows ?? 0,
  'links then': (snapshot) => snapshot.comparison?.old.links.target.length ?? 0,
};

/** The pages of the earlier crawl whose rows a selection holds. */
function pagesThen(snapshot: ComparedView, { after, removed, fresh, old }: Comparison<View>) {
  const rowOf = new Int32Array(after);
  removed.forEach((page, i) => (rowOf[page] = fresh.count + i));
  return (selection: Selection): Bits => {
    const rows = evaluateRows(snapshot, selection);
    const pages = noBits(old.count);
    rowOf.forEach((row, page) => hasBit(rows, row) && setBit(pages, page));
    return pages;
  };
}

function evaluated(snapshot: View, over: Over, selection: Selection): Bits {
  if (over === 'pages') return evaluate(snapshot, selection);
  if (over === 'links') return evaluateLinks(snapshot, selection);
  const comparison = snapshot.comparison;
  if (!comparison) throw selectionFault(NO_EARLIER, 0, 0);
  const compared = snapshot as ComparedView;
  if (over === 'pages of both') return evaluateRows(compared, selection);
  return evaluateLinks(comparison.old, selection, { comparison, pagesOf: pagesThen(compared, comparison) });
}

function answer(snapshot: View, over: Over, text: string): Selected {
  const parsed = over === 'pages' || over === 'pages of both' ? parseSelection(text) : parseLinkSelection(text);
  const nothing = (fault: SelectionFault) => ({ bits: noBits(sizeOf[over](snapshot)), fault });
  if (!parsed.ok) return nothing(parsed.fault);
  try {
    return { bits: evaluated(snapshot, over, parsed.selection), fault: null };
  } catch (error) {
    if (!isError(error, 'selection')) throw error;
    return nothing({ message: error.message, at: 0, length: text.length });
  }
}

/** What is answered of texts is another thing once they are indexed. */
const textsOf = ({ texts }: View) => (texts?.index ? 'texts' : '');

function select(snapshot: View, over: Over, text: string): Selected {
  const cache = cacheOf(snapshot);
  const key = `selection\n${textsOf(snapshot)}\n${over}\n${text}`;
  const known = cache.get(key);
  if (known && 'bits' in known) return known;
  const found = answer(snapshot, over, text);
  cache.set(key, found);
  return found;
}

/** The pages that a selection holds; none of them, and why, when it cannot be read or answered. */
export function selectPages(snapshot: View, text: string): { pages: Bits; fault: SelectionFault | null } {
  const { bits, fault } = select(snapshot, 'pages', text);
  return { pages: bits, fault };
}

/** As {@link selectPages}, of links. */
export function selectLinks(snapshot: View, text: string): { links: Bits; fault: SelectionFault | null } {
  const { bits, fault } = select(snapshot, 'links', text);
  return { links: bits, fault };
}

const noList = (name: ListName): List => ({
  columns: listColumns[name],
  rows: new Uint32Array(0),
  bytes: 0,
  cells: () => numberCells([]),
  selectOf: () => '',
});

/** The list that a view asks for. */
export function listOf(snapshot: View, view: Omit<ListView, 'sort'>): { list: List; fault: SelectionFault | null } {
  const cache = cacheOf(snapshot);
  const key = `list\n${textsOf(snapshot)}\n${view.list}\n${view.list === 'groups' ? view.by : ''}\n${view.select}`;
  const known = cache.get(key);
  if (known && 'list' in known) return known;
  const { bits, fault } = select(
    snapshot,
    view.list === 'changes' ? 'pages of both' : listedOf(view.list),
    view.select,
  );
  const compared = snapshot as ComparedView;
  const then = () => select(snapshot, 'links then', view.select).bits;
  const make: Record<ListName, () => List> = {
    pages: () => pageList(snapshot, bits),
    groups: () => pageGroups(snapshot, bits, view.by),
    links: () => linkList(snapshot, numbersOf(bits)),
    edits: () => editList(snapshot, numbersOf(bits)),
    anchors: () => anchorList(snapshot, numbersOf(bits)),
    hosts: () => hostList(snapshot, numbersOf(bits)),
    changes: () => changeList(compared, bits),
    changed_links: () => changedLinkList(compared, bits, then()),
    changed_edits: () => changedEditList(compared, bits, then()),
  };
  // Without an earlier crawl there is nothing in the lists of both.
  const isMissing = isListAcross(view.list) && !snapshot.comparison;
  const found = isMissing
    ? { list: noList(view.list), fault: fault ?? { message: NO_EARLIER, at: 0, length: 0 } }
    : { list: make[view.list](), fault };
  cache.set(key, found);
  return found;
}

/** The rows of a list in the order that a view asks for. */
export function orderedRows(snapshot: View, view: ListView): Uint32Array {
  const { list } = listOf(snapshot, view);
  const [name, direction] = view.sort.split(':');
  const column = columnOf(view.list, name);
  if (!column || column.sort === 'none') return list.rows;
  const cache = cacheOf(snapshot);
  const key = ['order', view.list, view.by, view.sort, view.select].join('\n');
  const known = cache.get(key);
  if (known && 'order' in known) return known.order;
  const order = orderRows(list, name, direction === 'desc');
  cache.set(key, { order });
  return order;
}

/**
 * A window of a list, with the cells of some of its columns.
 * @param before what cells of pages were is told, as this crawl has it
 */
export function listWindow(
  snapshot: View,
  view: ListView,
  columns: readonly string[],
  from: number,
  size: number,
  before: View | null = null,
): ListWindow {
  const { list } = listOf(snapshot, view);
  const was = before && view.list === 'pages' ? cellsBefore(before) : () => undefined;
  const rows = orderedRows(snapshot, view);
  const known = columns.filter((name) => columnOf(view.list, name));
  return {
    total: list.rows.length,
    from,
    rows: Array.from(rows.subarray(from, from + size), (id) => {
      const cells = Object.fromEntries(known.map((name) => [name, list.cells(name).value(id)]));
      return { id, select: list.selectOf(id), cells, was: was(id, cells) };
    }),
  };
}

/** Share moves a little everywhere; what lists show alike is alike. */
const SHOWN_ALIKE = 0.005;
const isAlike = (was: CellValue, is: CellValue) =>
  typeof was === 'number' && typeof is === 'number' ? Math.abs(was - is) < SHOWN_ALIKE : String(was) === String(is);

/** Finds the cells of a page that were others before a draft, which keeps the numbers of pages. */
function cellsBefore(before: View) {
  const list = pageList(before, noBits(before.count));
  return (page: number, cells: Record<string, CellValue>) =>
    page < before.count
      ? Object.fromEntries(
          Object.entries(cells).flatMap(([name, is]) => {
            const was = list.cells(name).value(page);
            return isAlike(was, is) ? [] : [[name, was]];
          }),
        )
      : undefined;
}

/** Rows beyond so many are not summed up: it would take longer than anyone waits. */
const MOST_SUMMED = 3_000_000;

/** The distributions of some columns of a list. */
export function listSummaries(snapshot: View, view: ListView, columns: readonly string[]): Record<string, Bin[]> {
  const { list } = listOf(snapshot, view);
  if (list.rows.length > MOST_SUMMED) return {};
  return Object.fromEntries(
    columns.flatMap((name) => {
      const column = columnOf(view.list, name);
      return column ? [[name, summaryOf(view.list, list, column)]] : [];
    }),
  );
}

const MOST_VALUES = 60;

/** Known values of a fact of texts that begin in a certain way, for whoever writes a selection. */
export function valuesOf(snapshot: View, fact: string, begins: string): string[] {
  if (fact === 'list' || fact === 'log')
    return snapshot.imports.flatMap(({ kind, name }) => (kind === fact && name.startsWith(begins) ? [name] : []));
  if (!isColumnName(fact)) return [];
  const column = snapshot.column(fact);
  if (!isText(column)) return [];
  const found: string[] = [];
  for (let code = 1; code < column.values.length && found.length < MOST_VALUES; code++)
    if (column.values[code].startsWith(begins)) found.push(column.values[code]);
  return found;
}
