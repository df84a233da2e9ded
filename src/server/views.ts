/** Questions that screens ask of open snapshots, with what is worth keeping between two of them. */
import { evaluate, numbersOf, parseSelection } from '$core/selection';
import type { Bits, SelectionFault } from '$core/selection';
import { comparator, factAt, isFactName } from '$core/snapshot';
import type { FactName, FactValue, Snapshot } from '$core/snapshot';
import { boundedMap } from './boundedMap';

/** The facts of a row of a list. */
export const rowFacts = ['url', 'title', 'depth', 'pages_linking', 'links_in', 'links_out', 'status', 'verdict', 'reach', 'seen_in'] as const satisfies readonly FactName[]; // prettier-ignore
export type Row = Record<(typeof rowFacts)[number], FactValue>;

export interface ListWindow {
  total: number;
  from: number;
  rows: Row[];
}

export interface Selected {
  pages: Bits;
  /** Why the selection could not be read; it then holds everything. */
  fault: SelectionFault | null;
}

interface Kept {
  selections: ReturnType<typeof boundedMap<string, Selected>>;
  orders: ReturnType<typeof boundedMap<string, Uint32Array>>;
}

const kept = new WeakMap<Snapshot, Kept>();
const keptOf = (snapshot: Snapshot): Kept => {
  let entry = kept.get(snapshot);
  if (!entry) kept.set(snapshot, (entry = { selections: boundedMap(20), orders: boundedMap(12) }));
  return entry;
};

/** What a selection holds. */
export function selectPages(snapshot: Snapshot, text: string): Selected {
  const { selections } = keptOf(snapshot);
  let selected = selections.get(text);
  if (!selected) {
    const parsed = parseSelection(text);
    selected = parsed.ok
      ? { pages: evaluate(snapshot, parsed.selection), fault: null }
      : { pages: evaluate(snapshot, { op: 'all' }), fault: parsed.fault };
    selections.set(text, selected);
  }
  return selected;
}

/**
 * The pages of a selection in order.
 * @param sort a fact, `fact:desc`, or '' for the order of addresses
 */
export function orderedPages(snapshot: Snapshot, select: string, sort: string): Uint32Array {
  const { orders } = keptOf(snapshot);
  const key = `${sort}\n${select}`;
  let pages = orders.get(key);
  if (!pages) {
    pages = numbersOf(selectPages(snapshot, select).pages);
    const [name, direction] = sort.split(':');
    if (isFactName(name)) pages.sort(comparator(snapshot.columns[name], direction === 'desc'));
    orders.set(key, pages);
  }
  return pages;
}

/** A window of a list. */
export function listWindow(snapshot: Snapshot, select: string, sort: string, from: number, size: number): ListWindow {
  const pages = orderedPages(snapshot, select, sort);
  const rows = Array.from(
    pages.subarray(from, from + size),
    (page) => Object.fromEntries(rowFacts.map((name) => [name, factAt(snapshot, name, page)])) as Row,
  );
  return { total: pages.length, from, rows };
}
