/** Rows that can be put in order by any of their columns and read cell by cell. */
import type { FactValue } from '../snapshot';
import type { ListColumn } from './columns';

/** How one column of a list is read. */
export interface Cells {
  /** What rows are sorted by: negative when unknown. Whole numbers, unless the column is a ratio. */
  key: (row: number) => number;
  value: (row: number) => FactValue;
}

export interface List {
  columns: readonly ListColumn[];
  /** The rows in the order in which they come by themselves. */
  rows: Uint32Array;
  cells: (column: string) => Cells;
  /** The selection of what a row stands for; '' when a row is one page or one link. */
  selectOf: (row: number) => string;
}

/** One row as it is sent to whoever shows it. */
export interface ListRow {
  id: number;
  /** The selection of what the row stands for; '' when it is one page or one link. */
  select: string;
  cells: Record<string, FactValue>;
}

export interface ListWindow {
  total: number;
  from: number;
  rows: ListRow[];
}

/** Below this many rows a comparison is quicker than passes over all of them. */
const FEW = 3000;

/** Puts rows in order by a column, unknown last whatever the direction; equal ones keep their order. */
export function orderRows(list: List, column: string, descending: boolean): Uint32Array {
  const { key } = list.cells(column);
  const { rows } = list;
  const sign = descending ? -1 : 1;
  const exact = list.columns.find(({ name }) => name === column)?.type !== 'ratio';
  if (!exact || rows.length < FEW) {
    const keys = Float64Array.from(rows, key);
    const order = Uint32Array.from(rows.keys());
    order.sort((a, b) => {
      const [x, y] = [keys[a], keys[b]];
      if (x === y) return a - b;
      if (x < 0 || y < 0) return x < 0 ? (y < 0 ? a - b : 1) : -1;
      return sign * (x - y);
    });
    return order.map((at) => rows[at]);
  }
  const keys = new Uint32Array(rows.length);
  for (let i = 0; i < rows.length; i++) {
    const own = key(rows[i]);
    keys[i] = own < 0 ? 0xffffffff : descending ? 0xfffffffe - own : own;
  }
  return radixSorted(rows, keys);
}

const RADIX = 1 << 16;

/** Sorts by 32-bit keys in two passes, the low halves first; what is equal keeps its order. */
function radixSorted(rows: Uint32Array, keys: Uint32Array): Uint32Array {
  let from = new Uint32Array(rows.length);
  let to = new Uint32Array(rows.length);
  for (let i = 0; i < from.length; i++) from[i] = i;
  for (const shift of [0, 16]) {
    const next = new Uint32Array(RADIX + 1);
    for (let i = 0; i < keys.length; i++) next[((keys[i] >>> shift) & 0xffff) + 1]++;
    for (let digit = 0; digit < RADIX; digit++) next[digit + 1] += next[digit];
    for (let i = 0; i < from.length; i++) to[next[(keys[from[i]] >>> shift) & 0xffff]++] = from[i];
    [from, to] = [to, from];
  }
  for (let i = 0; i < from.length; i++) to[i] = rows[from[i]];
  return to;
}

/** The place of each text in their order; a reader of many rows asks for it once. */
export function ranksOf(texts: readonly string[]): Uint32Array {
  const order = Uint32Array.from(texts.keys()).sort((a, b) => (texts[a] < texts[b] ? -1 : texts[a] > texts[b] ? 1 : 0));
  const ranks = new Uint32Array(texts.length);
  let rank = 0;
  order.forEach((text, i) => {
    if (i > 0 && texts[text] !== texts[order[i - 1]]) rank++;
    ranks[text] = rank;
  });
  return ranks;
}

/** Cells of numbers that are held in an array, −1 where unknown. */
export const numberCells = (numbers: ArrayLike<number>): Cells => ({
  key: (row) => numbers[row],
  value: (row) => (numbers[row] < 0 ? null : numbers[row]),
});

/** Cells of texts that are held in an array. */
export function textCells(texts: readonly string[]): Cells {
  let ranks: Uint32Array | undefined;
  return { key: (row) => (ranks ??= ranksOf(texts))[row], value: (row) => texts[row] };
}

/** Makes the cells of each column when they are first asked for. @throws Error for a column that the list lacks */
export function cellsBy(make: Record<string, () => Cells>): List['cells'] {
  const made = new Map<string, Cells>();
  return (column) => {
    let cells = made.get(column);
    if (!cells) {
      if (!Object.hasOwn(make, column)) throw new Error(`The list has no column “${column}”.`);
      made.set(column, (cells = make[column]()));
    }
    return cells;
  };
}
