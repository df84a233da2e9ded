const PAGE_BITS = 10;
const PAGE = 1 << PAGE_BITS;
/** Beyond it, places in an array cannot be reckoned in 32 bits. */
const MAX_PAGED = 2 ** 32 - 1;

/** Numbers by the numbers of rows. */
interface RowTable {
  /** −1 for a row that was not put in. */
  get: (row: number) => number;
  set: (row: number, number: number) => void;
}

/**
 * Makes an empty table. Rows that are written together have numbers that lie close together: they are looked up in the
 * pages of an array, most of which may be missing, in a fifth of the time that a Map takes for millions.
 */
export function rowTable(): RowTable {
  const pages: (Int32Array | undefined)[] = [];
  const beyond = new Map<number, number>();
  return {
    get: (row) => {
      if (row > MAX_PAGED) return beyond.get(row) ?? -1;
      const page = row >>> PAGE_BITS < pages.length ? pages[row >>> PAGE_BITS] : undefined;
      return page ? page[row & (PAGE - 1)] : -1;
    },
    set: (row, number) => {
      if (row > MAX_PAGED) beyond.set(row, number);
      else (pages[row >>> PAGE_BITS] ??= new Int32Array(PAGE).fill(-1))[row & (PAGE - 1)] = number;
    },
  };
}

/** Gives rows numbers from 0, in the order in which they are first asked for. */
export function rowNumbering() {
  const table = rowTable();
  const rows: number[] = [];
  return {
    rows: rows as readonly number[],
    of(row: number): number {
      let number = table.get(row);
      if (number < 0) table.set(row, (number = rows.push(row) - 1));
      return number;
    },
  };
}
