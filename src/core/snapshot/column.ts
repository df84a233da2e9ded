import { factOf } from './facts';
import type { FactName, FactValue } from './facts';

/** A text column: each page's number of an entry in `values`; 0 is unknown. */
export interface TextColumn {
  codes: Uint32Array;
  /** `values[0]` stands for unknown and is never shown. */
  values: string[];
}

/** A column of numbers, flags, choices or sets; −1 is unknown. */
export type NumberColumn = Int32Array;

export type Column = TextColumn | NumberColumn;

export const isText = (column: Column): column is TextColumn => !(column instanceof Int32Array);

/** Builds a text column from one text or null a page. */
export function textColumn(texts: readonly (string | null)[]): TextColumn {
  const values = [''];
  const numbers = new Map<string, number>();
  const codes = Uint32Array.from(texts, (text) => {
    if (text === null) return 0;
    let code = numbers.get(text);
    if (code === undefined) {
      code = values.push(text) - 1;
      numbers.set(text, code);
    }
    return code;
  });
  return { codes, values };
}

/** The value of a fact for one page, as a reader understands it. */
export function valueAt(name: FactName, column: Column, page: number): FactValue {
  if (isText(column)) return column.codes[page] === 0 ? null : column.values[column.codes[page]];
  const value = column[page];
  const { type, values } = factOf(name);
  if (value < 0) return null;
  if (type === 'flag') return value === 1;
  if (type === 'choice') return values![value];
  if (type === 'set') return values!.filter((_, bit) => value & (1 << bit));
  return value;
}

/**
 * Compares two pages by one fact, unknown last whatever the direction. Texts compare by code unit, as addresses do.
 * @returns a comparator over page numbers; pages that are equal keep the order of their numbers
 */
export function comparator(column: Column, descending: boolean): (a: number, b: number) => number {
  const sign = descending ? -1 : 1;
  if (isText(column)) {
    // Ranks are worked out once, so that sorting compares numbers only.
    const order = column.values.map((_, code) => code).slice(1);
    order.sort((a, b) => (column.values[a] < column.values[b] ? -1 : 1));
    const rank = new Int32Array(column.values.length).fill(-1);
    order.forEach((code, i) => (rank[code] = i));
    return byNumber((page) => rank[column.codes[page]], sign);
  }
  return byNumber((page) => column[page], sign);
}

const byNumber = (value: (page: number) => number, sign: number) => (a: number, b: number) => {
  const [x, y] = [value(a), value(b)];
  if (x === y) return a - b;
  if (x < 0 || y < 0) return x < 0 ? 1 : -1;
  return sign * (x - y);
};
