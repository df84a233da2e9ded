import { factOf, keepsText } from '../facts';
import type { ColumnName, IntegerFact, RatioFact, TextFact } from '../facts';

/** What a kept fact is to a reader: null is unknown. */
export type FactValue = string | number | boolean | readonly string[] | null;

/** A text column: each page's number of an entry in `values`, which ascend by code unit; 0 is unknown. */
export interface TextColumn {
  codes: Uint32Array;
  /** `values[0]` stands for unknown and is never shown. */
  values: string[];
  /** With how many characters, up to {@link MAX_COMMON}, each value begins like the one before it. */
  common: Uint8Array;
}

export const MAX_COMMON = 255;

function commonBeginnings(values: readonly string[]): Uint8Array {
  const common = new Uint8Array(values.length);
  for (let at = 2; at < values.length; at++) {
    const [a, b] = [values[at - 1], values[at]];
    const most = Math.min(a.length, b.length, MAX_COMMON);
    let same = 0;
    while (same < most && a.charCodeAt(same) === b.charCodeAt(same)) same++;
    common[at] = same;
  }
  return common;
}

/** A column of numbers, ratios, flags, choices or sets; −1 is unknown. */
export type NumberColumn = Int32Array | Float64Array;

export type Column = TextColumn | NumberColumn;

type ColumnOf<N extends ColumnName> = N extends TextFact
  ? TextColumn
  : N extends RatioFact
    ? Float64Array
    : N extends IntegerFact
      ? Int32Array
      : never;
/** A column for each of some facts; −1 is unknown in numbers, the code 0 in texts. */
export type Columns<N extends ColumnName = ColumnName> = { [K in N]: ColumnOf<K> };
/** Gives the column of a fact by its name. */
export type ColumnReader<N extends ColumnName = ColumnName> = <K extends N>(name: K) => Columns[K];

/** The values of a text column one after another, to be searched at once. */
export interface JoinedTexts {
  text: string;
  /** Value `i` is `text` from `starts[i]` to `starts[i + 1]`. */
  starts: Uint32Array;
}

/** Engines allow longer texts; what is longer is not worth a second copy. */
const MAX_JOINED = 1 << 28;

const joined = new WeakMap<TextColumn, JoinedTexts | null>();

/** Joins the values of a column and keeps them as long as the column; null when they are too long for one text. */
export function joinedTexts(column: TextColumn): JoinedTexts | null {
  let texts = joined.get(column);
  if (texts === undefined) {
    const { values } = column;
    const starts = new Uint32Array(values.length + 1);
    for (let at = 0; at < values.length; at++) starts[at + 1] = starts[at] + values[at].length;
    texts = starts[values.length] > MAX_JOINED ? null : { text: values.join(''), starts };
    joined.set(column, texts);
  }
  return texts;
}

export const isText = (column: Column): column is TextColumn => 'codes' in column;

/** A column as that of a fact, whose type decides what it is. @throws TypeError when it is another */
export function ofFact<N extends ColumnName>(name: N, column: Column): Columns[N] {
  const { type } = factOf(name);
  const isOfType = keepsText(type) ? isText(column) : column instanceof (type === 'ratio' ? Float64Array : Int32Array);
  if (!isOfType) throw new TypeError(`The column of “${name}” is not of type ${type}.`);
  return column as Columns[N];
}

const numbered = new WeakMap<TextColumn, Int32Array>();

/**
 * The page of each code of a column in which no text comes twice, as addresses do; −1 for none. Kept as long as the
 * column.
 */
export function pagesByCode(column: TextColumn): Int32Array {
  let pages = numbered.get(column);
  if (!pages) {
    numbered.set(column, (pages = new Int32Array(column.values.length).fill(-1)));
    for (let page = 0; page < column.codes.length; page++) pages[column.codes[page]] = page;
  }
  return pages;
}

/** Numbers texts in the order in which they come, and makes a text column of the numbers. */
export function textCoder() {
  const texts: string[] = [];
  /**
   * The number of each text. As long as each is larger than all before, as in the order of addresses, none is looked
   * up.
   */
  let numbers: Map<string, number> | null = null;
  // Neighbours in the order of addresses often have the same text, and a comparison is quicker than a lookup.
  let last: string | null = null;
  let lastNumber = 0;
  return {
    /** The number of a text, from 1; unknown is 0. */
    code: (text: string | null): number => {
      if (text === null) return 0;
      if (text === last) return lastNumber;
      if (!numbers && last !== null && text < last) numbers = new Map(texts.map((met, i) => [met, i + 1]));
      let number = numbers?.get(text);
      if (number === undefined) {
        number = texts.push(text);
        numbers?.set(text, number);
      }
      [last, lastNumber] = [text, number];
      return number;
    },
    /**
     * Puts the texts in order, so that pages are sorted by comparing numbers.
     * @param codes one a page; changed in place
     */
    column: (codes: Uint32Array): TextColumn => {
      const values = ['', ...texts];
      if (numbers) {
        values.sort();
        const rank = new Uint32Array(values.length);
        for (let code = 1; code < values.length; code++) rank[numbers.get(values[code])!] = code;
        for (let i = 0; i < codes.length; i++) codes[i] = rank[codes[i]];
      }
      return { codes, values, common: commonBeginnings(values) };
    },
  };
}

/** Builds a text column from one text or null a page. */
export function textColumn(texts: readonly (string | null)[]): TextColumn {
  const { code, column } = textCoder();
  return column(new Uint32Array(texts.length).map((_, i) => code(texts[i])));
}

/**
 * The texts that a column has for some pages, as a column of their own.
 * @param pages one a page; below 0 for unknown
 */
export function textsAt({ codes, values }: TextColumn, pages: ArrayLike<number>): TextColumn {
  const own = Uint32Array.from(pages, (page) => (page < 0 ? 0 : codes[page]));
  const numbers = new Uint32Array(values.length);
  for (const code of own) numbers[code] = 1;
  const used = ['', ...values.filter((_, code) => code > 0 && numbers[code])];
  let number = 0;
  numbers.forEach((isUsed, code) => (numbers[code] = code > 0 && isUsed ? ++number : 0));
  return { codes: own.map((code) => numbers[code]), values: used, common: commonBeginnings(used) };
}

/** The code of a text in a column; null when no page has it. */
export function codeOf({ values }: TextColumn, text: string): number | null {
  let [low, high] = [1, values.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (values[middle] < text) low = middle + 1;
    else high = middle;
  }
  return values[low] === text ? low : null;
}

/** For each of some texts in ascending order its code in a column; 0 where no page has it. */
export function codesOf({ values }: TextColumn, texts: readonly string[]): Int32Array {
  // Both are in order, so one pass over them is enough.
  let code = 1;
  return Int32Array.from(texts, (text) => {
    while (code < values.length && values[code] < text) code++;
    return values[code] === text ? code : 0;
  });
}

/** The value of a fact for one page, as a reader understands it. */
export function valueAt(name: ColumnName, column: Column, page: number): FactValue {
  if (isText(column)) return column.codes[page] === 0 ? null : column.values[column.codes[page]];
  const value = column[page];
  const { type, values } = factOf(name);
  if (value < 0) return null;
  if (type === 'flag') return value === 1;
  if (type === 'choice') return values![value];
  if (type === 'set') return values!.filter((_, bit) => value & (1 << bit));
  return value;
}

/** The value of a fact as a column of numbers holds it: −1 for unknown. */
function numberFor(name: ColumnName, value: FactValue): number {
  const { values } = factOf(name);
  if (value === null) return -1;
  return values && typeof value === 'string' ? values.indexOf(value) : Number(value);
}

/** A text column in which some pages have other texts. */
function withTexts(column: TextColumn, count: number, given: ReadonlyMap<number, FactValue>): TextColumn {
  const texts = [...given.values()].filter((value) => value !== null).map(String);
  const added = [...new Set(texts)].filter((text) => codeOf(column, text) === null).sort();
  const codes = new Uint32Array(count);
  codes.set(column.codes);
  let { values, common } = column;
  if (added.length) {
    // Both are in order: each old value moves by as many places as there are new ones before it.
    values = [''];
    const moved = new Uint32Array(column.values.length);
    let next = 0;
    for (let code = 1; code < column.values.length; code++) {
      while (next < added.length && added[next] < column.values[code]) values.push(added[next++]);
      moved[code] = values.push(column.values[code]) - 1;
    }
    values = [...values, ...added.slice(next)];
    common = commonBeginnings(values);
    for (let page = 0; page < codes.length; page++) codes[page] = moved[codes[page]];
  }
  const merged = { codes, values, common };
  for (const [page, value] of given) codes[page] = value === null ? 0 : codeOf(merged, String(value))!;
  return merged;
}

/**
 * A column in which some pages have other values, and pages that are appended nothing else.
 * @param count how many pages there are then
 */
export function withValues<N extends ColumnName>(
  name: N,
  column: Columns[N],
  count: number,
  given: ReadonlyMap<number, FactValue>,
): Columns[N];
export function withValues(
  name: ColumnName,
  column: Column,
  count: number,
  given: ReadonlyMap<number, FactValue>,
): Column {
  if (isText(column)) return withTexts(column, count, given);
  const values = new (column instanceof Float64Array ? Float64Array : Int32Array)(count).fill(-1);
  values.set(column);
  for (const [page, value] of given) values[page] = numberFor(name, value);
  return values;
}

/** A column of which nothing is known. */
export const unknownColumn = (name: ColumnName, count: number): Column => {
  const { type } = factOf(name);
  if (keepsText(type)) return { codes: new Uint32Array(count), values: [''], common: new Uint8Array(1) };
  return (type === 'ratio' ? new Float64Array(count) : new Int32Array(count)).fill(-1);
};
