/** Pages with the same content, and with nearly the same. */
import { groupEqual, radixOrder } from '../grouping';

/**
 * How many other pages have the same code.
 * @param codes numbers of texts: little larger than there are pages
 * @param counts whether a page counts as one of them
 * @returns −1 where the code is 0, which is unknown
 */
export function countEqual(codes: Uint32Array, counts: (page: number) => boolean = () => true): Int32Array {
  const times = new Uint32Array(1 + codes.reduce((most, code) => Math.max(most, code), 0));
  codes.forEach((code, page) => (times[code] += Number(counts(page))));
  return new Int32Array(codes).map((code, page) => (code === 0 ? -1 : times[code] - Number(counts(page))));
}

/** How many of 32 bits are set. */
function bitsSet(value: number): number {
  value -= (value >>> 1) & 0x55555555;
  value = (value & 0x33333333) + ((value >>> 2) & 0x33333333);
  return Math.imul((value + (value >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
}

/**
 * The tables in which two fingerprints that differ in few bits meet at least once, by the pigeonhole principle: of four
 * pieces of 16 bits one is equal when 3 bits differ; of eight pieces of 8 bits two are when 6 bits differ.
 * @returns for each table the masks of the high and low half that are its key
 */
function tablesFor(tolerance: number): [high: number, low: number][] {
  if (tolerance <= 3)
    return [
      [0xffff0000, 0],
      [0xffff, 0],
      [0, 0xffff0000],
      [0, 0xffff],
    ];
  const byte = (i: number): [number, number] => (i < 4 ? [0xff << (8 * i), 0] : [0, 0xff << (8 * (i - 4))]);
  const tables: [number, number][] = [];
  for (let a = 0; a < 8; a++)
    for (let b = a + 1; b < 8; b++) tables.push([byte(a)[0] | byte(b)[0], byte(a)[1] | byte(b)[1]]);
  return tables;
}

/**
 * Comparisons at most, over all tables. Sites of up to some thousand pages that are all alike are compared in full; in
 * larger ones each page is compared with its neighbours in the order of fingerprints, and counts are lower bounds.
 */
const MAX_COMPARISONS = 300_000_000;

export interface NearDuplicates {
  /** How many other pages are alike and not the same; −1 for pages without a fingerprint. */
  alike: Int32Array;
  /** The group of pages that are alike, from 1, largest first; −1 for pages in none. */
  group: Int32Array;
}

export interface NearInput {
  /** Two halves of 32 bits a page; 0 and 0 for pages that are left out. */
  fingerprints: Uint32Array;
  /** What tells exact duplicates: equal codes are the same page; 0 is unknown. Equal content has equal fingerprints. */
  content: Uint32Array;
}

/**
 * Finds pages whose fingerprints differ in at most `tolerance` of 64 bits, exact duplicates apart.
 * @param tolerance 0 to {@link MAX_TOLERANCE}
 */
export function nearDuplicates({ fingerprints, content }: NearInput, tolerance: number): NearDuplicates {
  const count = content.length;
  const pages = content.map((_, page) => page).filter((page) => fingerprints[2 * page] || fingerprints[2 * page + 1]);
  // Pages of one fingerprint are compared once, however many they are.
  const prints = groupEqual(
    pages,
    (page) => fingerprints[2 * page] ^ Math.imul(fingerprints[2 * page + 1], 0x85ebca6b),
    (a, b) => fingerprints[2 * a] === fingerprints[2 * b] && fingerprints[2 * a + 1] === fingerprints[2 * b + 1],
  );
  const high = new Uint32Array(prints.first).map((page) => fingerprints[2 * page]);
  const low = new Uint32Array(prints.first).map((page) => fingerprints[2 * page + 1]);
  const members = new Uint32Array(prints.count);
  for (const print of prints.of) members[print]++;
  /** Pages of other fingerprints that are alike. */
  const others = new Uint32Array(prints.count);
  const root = new Uint32Array(prints.count).map((_, print) => print);
  const find = (print: number): number => {
    while (root[print] !== print) print = root[print] = root[root[print]];
    return print;
  };
  const tables = tolerance > 0 ? tablesFor(tolerance) : [];
  const window = Math.max(64, Math.floor(MAX_COMPARISONS / Math.max(1, tables.length * prints.count)));
  tables.forEach(([highMask, lowMask], table) => {
    const keys = new Uint32Array(prints.count);
    for (let print = 0; print < prints.count; print++)
      keys[print] = (high[print] & highMask) ^ Math.imul(low[print] & lowMask, 0x9e3779b1);
    const order = neighboursTogether(radixOrder(keys), keys, high, low, window);
    const sameKey = (a: number, b: number, [highs, lows]: [number, number]) =>
      ((high[a] ^ high[b]) & highs) === 0 && ((low[a] ^ low[b]) & lows) === 0;
    for (let i = 1; i < order.length; i++) {
      const a = order[i];
      for (let j = i - 1; j >= 0 && i - j <= window; j--) {
        const b = order[j];
        if (keys[a] !== keys[b]) break;
        if (bitsSet(high[a] ^ high[b]) + bitsSet(low[a] ^ low[b]) > tolerance) continue;
        // A pair meets under several keys and counts under the first.
        if (tables.findIndex((masks) => sameKey(a, b, masks)) !== table) continue;
        others[a] += members[b];
        others[b] += members[a];
        root[find(a)] = find(b);
      }
    }
  });
  const same = countEqual(content);
  const alike = new Int32Array(count).fill(-1);
  // Pages of one fingerprint are alike, but for those that are the same.
  pages.forEach((page, i) => {
    const print = prints.of[i];
    alike[page] = others[print] + members[print] - 1 - Math.max(0, same[page]);
  });
  return { alike, group: numberedGroups(alike, (i) => find(prints.of[i]), pages) };
}

/**
 * Puts the fingerprints of each key that has more than a window holds in order, so that those in one are near each
 * other.
 */
function neighboursTogether(
  order: Uint32Array,
  keys: Uint32Array,
  high: Uint32Array,
  low: Uint32Array,
  window: number,
): Uint32Array {
  for (let from = 0, to; from < order.length; from = to) {
    for (to = from + 1; to < order.length && keys[order[to]] === keys[order[from]];) to++;
    if (to - from > window) order.subarray(from, to).sort((a, b) => high[a] - high[b] || low[a] - low[b]);
  }
  return order;
}

/** Numbers the groups of pages that are alike from 1, the largest first. */
function numberedGroups(alike: Int32Array, groupOf: (i: number) => number, pages: Uint32Array): Int32Array {
  const sizes = new Map<number, number>();
  const firstOf = new Map<number, number>();
  const found = new Int32Array(alike.length).fill(-1);
  pages.forEach((page, i) => {
    if (alike[page] <= 0) return;
    const group = groupOf(i);
    found[page] = group;
    sizes.set(group, (sizes.get(group) ?? 0) + 1);
    if (!firstOf.has(group)) firstOf.set(group, page);
  });
  const ordered = [...sizes].sort((a, b) => b[1] - a[1] || firstOf.get(a[0])! - firstOf.get(b[0])!);
  const numbers = new Map(ordered.map(([group], i) => [group, i + 1]));
  return found.map((group) => (group < 0 ? -1 : numbers.get(group)!));
}
