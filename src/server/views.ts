/** Questions that screens ask of open snapshots, with what is worth keeping between two of them. */
import {
  anchorList,
  columnOf,
  editList,
  hostList,
  linkList,
  listedOf,
  orderRows,
  pageGroups,
  pageList,
  summaryOf,
} from '$core/lists';
import type { Bin, List, ListName, ListWindow } from '$core/lists';
import { evaluate, evaluateLinks, numbersOf, parseLinkSelection, parseSelection } from '$core/selection';
import type { Bits, Selection, SelectionFault } from '$core/selection';
import { isFactName } from '$core/snapshot';
import type { FactName, Snapshot } from '$core/snapshot';
import { boundedMap } from './boundedMap';

/** A list as a screen asks for it. */
export interface ListView {
  list: ListName;
  /** A selection of pages or of links, whichever the list is of. */
  select: string;
  /** A column, `column:desc`, or '' for the order in which rows come by themselves. */
  sort: string;
  /** The fact by which pages are grouped. */
  by: FactName;
}

interface Selected<Kept> {
  kept: Kept;
  /** Why the selection could not be read; it then holds everything. */
  fault: SelectionFault | null;
}

interface Kept {
  selections: ReturnType<typeof boundedMap<string, Selected<Bits>>>;
  lists: ReturnType<typeof boundedMap<string, Selected<List>>>;
  orders: ReturnType<typeof boundedMap<string, Uint32Array>>;
}

const kept = new WeakMap<Snapshot, Kept>();
const keptOf = (snapshot: Snapshot): Kept => {
  let entry = kept.get(snapshot);
  if (!entry) kept.set(snapshot, (entry = { selections: boundedMap(20), lists: boundedMap(6), orders: boundedMap(8) }));
  return entry;
};

function select(snapshot: Snapshot, over: 'pages' | 'links', text: string): Selected<Bits> {
  const { selections } = keptOf(snapshot);
  const key = `${over}\n${text}`;
  let selected = selections.get(key);
  if (!selected) {
    const parsed = over === 'pages' ? parseSelection(text) : parseLinkSelection(text);
    const selection: Selection = parsed.ok ? parsed.selection : { op: 'all' };
    const bits = over === 'pages' ? evaluate(snapshot, selection) : evaluateLinks(snapshot, selection);
    selections.set(key, (selected = { kept: bits, fault: parsed.ok ? null : parsed.fault }));
  }
  return selected;
}

/** The pages that a selection holds; all of them, and why, when it cannot be read. */
export function selectPages(snapshot: Snapshot, text: string): { pages: Bits; fault: SelectionFault | null } {
  const { kept, fault } = select(snapshot, 'pages', text);
  return { pages: kept, fault };
}

/** The list that a view asks for. */
export function listOf(snapshot: Snapshot, view: Omit<ListView, 'sort'>): { list: List; fault: SelectionFault | null } {
  const { lists } = keptOf(snapshot);
  const key = `${view.list}\n${view.list === 'groups' ? view.by : ''}\n${view.select}`;
  let found = lists.get(key);
  if (!found) {
    const { kept, fault } = select(snapshot, listedOf(view.list), view.select);
    const make: Record<ListName, () => List> = {
      pages: () => pageList(snapshot, kept),
      groups: () => pageGroups(snapshot, kept, view.by),
      links: () => linkList(snapshot, numbersOf(kept)),
      edits: () => editList(snapshot, numbersOf(kept)),
      anchors: () => anchorList(snapshot, numbersOf(kept)),
      hosts: () => hostList(snapshot, numbersOf(kept)),
    };
    lists.set(key, (found = { kept: make[view.list](), fault }));
  }
  return { list: found.kept, fault: found.fault };
}

/** The rows of a list in the order that a view asks for. */
export function orderedRows(snapshot: Snapshot, view: ListView): Uint32Array {
  const { list } = listOf(snapshot, view);
  const [column, direction] = view.sort.split(':');
  if (!columnOf(view.list, column)) return list.rows;
  const { orders } = keptOf(snapshot);
  const key = [view.list, view.by, view.sort, view.select].join('\n');
  let rows = orders.get(key);
  if (!rows) orders.set(key, (rows = orderRows(list, column, direction === 'desc')));
  return rows;
}

/** A window of a list, with the cells of some of its columns. */
export function listWindow(
  snapshot: Snapshot,
  view: ListView,
  columns: readonly string[],
  from: number,
  size: number,
): ListWindow {
  const { list } = listOf(snapshot, view);
  const rows = orderedRows(snapshot, view);
  const known = columns.filter((name) => columnOf(view.list, name));
  return {
    total: rows.length,
    from,
    rows: Array.from(rows.subarray(from, from + size), (id) => ({
      id,
      select: list.selectOf(id),
      cells: Object.fromEntries(known.map((name) => [name, list.cells(name).value(id)])),
    })),
  };
}

/** Rows beyond so many are not summed up: it would take longer than anyone waits. */
const MOST_SUMMED = 3_000_000;

/** The distributions of some columns of a list. */
export function listSummaries(snapshot: Snapshot, view: ListView, columns: readonly string[]): Record<string, Bin[]> {
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
export function valuesOf(snapshot: Snapshot, fact: string, begins: string): string[] {
  if (!isFactName(fact)) return [];
  const column = snapshot.columns[fact];
  if (!('codes' in column)) return [];
  const found: string[] = [];
  for (let code = 1; code < column.values.length && found.length < MOST_VALUES; code++)
    if (column.values[code].startsWith(begins)) found.push(column.values[code]);
  return found;
}
