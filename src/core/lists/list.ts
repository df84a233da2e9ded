/** Rows that can be put in order by any of their columns and read cell by cell. */
import type { Message } from '../messages';
import type { FactValue } from '../snapshot';
import type { ListColumn } from './columns';

/** What a cell holds: the value of a fact, or a message that its reader makes a sentence of. */
export type CellValue = FactValue | Message;

/** How one column of a list is read. */
export interface Cells {
  /** What rows are sorted by: negative when unknown. Whole numbers, unless the column is a ratio. */
  key: (row: number) => number;
  value: (row: number) => CellValue;
}

export interface List {
  columns: readonly ListColumn[];
  /** The rows in the order in which they come by themselves. */
  rows: Uint32Array;
  cells: (column: string) => Cells;
  /** Roughly how many bytes it holds, for whoever bounds memory. */
  bytes: number;
  /** The selection of what a row stands for; '' when a row is one page or one link. */
  selectOf: (row: number) => string;
}

/** One row as it is sent to whoever shows it. */
export interface ListRow {
  id: number;
  /** The selection of what the row stands for; '' when it is one page or one link. */
  select: string;
  cells: Record<string, CellValue>;
  /** What those cells were that a draft changes, beside the crawl as it was crawled. */
  was?: Record<string, CellValue>;
}

export interface ListWindow {
  total: number;
  from: number;
  rows: ListRow[];
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
