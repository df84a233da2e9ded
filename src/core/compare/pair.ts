/** Which page of one crawl is which of another. */
import { addressAt, codesOf, pagesByCode, pagesNamed, textAt } from '../snapshot';
import type { Snapshot, TextColumn } from '../snapshot';
import { contentKey } from './likeness';
import { sameAddress } from './pairing';
import type { AddressMap, PairedBy } from './pairing';

export interface PairOptions {
  /** Applied to the addresses of both crawls. */
  map?: AddressMap;
  /**
   * `canonical`: a page that only one crawl knows is that which its canonical names; `redirect`: a page that redirects
   * now is the one that it leads to.
   */
  by?: readonly PairedBy[];
}

export interface Pairing<S extends Snapshot = Snapshot> {
  old: S;
  fresh: S;
  map: AddressMap;
  /** For each page of the new crawl the page that it was, for each of the old one the page that it is; −1 for none. */
  before: Int32Array;
  after: Int32Array;
  /** For each page of the old crawl the page of the new one at the same address; −1 for none. */
  sameAt: Int32Array;
  /** Pages of the old crawl that the new one lacks, ascending. */
  removed: Int32Array;
  /** The pages of the new crawl, and then those that are removed: what lists of both have as their rows. */
  rows: number;
}

/**
 * For each code of a text column that of the same text in another one; −1 where the other lacks it. Unknown is unknown.
 */
export function codesIn(from: TextColumn, to: TextColumn, map: AddressMap = sameAddress): Int32Array {
  if (map === sameAddress) return codesOf(to, from.values).map((code, at) => (at === 0 ? 0 : code || -1));
  const known = new Map<string, number>();
  for (let code = to.values.length - 1; code > 0; code--) known.set(map(to.values[code]), code);
  return Int32Array.from(from.values, (text, at) => (at === 0 ? 0 : (known.get(map(text)) ?? -1)));
}

function pagesAtSameAddress(old: Snapshot, fresh: Snapshot, map: AddressMap): Int32Array {
  const codes = codesIn(old.column('url'), fresh.column('url'), map);
  const pages = pagesByCode(fresh.column('url'));
  return new Int32Array(old.count).map((_, page) => {
    const code = codes[old.column('url').codes[page]];
    return code < 0 ? -1 : pages[code];
  });
}

/** The page of each content that exactly one of some pages has, by its key. */
function pagesByContent(snapshot: Snapshot, isFree: (page: number) => boolean): Map<string, number> {
  const pages = new Map<string, number>();
  const several = new Set<string>();
  const html = snapshot.column('html');
  const status = snapshot.column('status');
  for (let page = 0; page < snapshot.count; page++) {
    const key = html[page] === 1 && status[page] === 200 && isFree(page) ? contentKey(snapshot, page) : null;
    if (key === null) continue;
    if (pages.has(key)) several.add(key);
    pages.set(key, page);
  }
  for (const key of several) pages.delete(key);
  return pages;
}

/**
 * Pairs the pages of two crawls: by address, as is asked for, and then by content that only one page had and one has.
 */
export function pairPages<S extends Snapshot>(
  old: S,
  fresh: S,
  { map = sameAddress, by = [] }: PairOptions = {},
): Pairing<S> {
  const sameAt = pagesAtSameAddress(old, fresh, map);
  const before = new Int32Array(fresh.count).fill(-1);
  const after = new Int32Array(old.count).fill(-1);
  const pair = (was: number, is: number) => {
    after[was] = is;
    before[is] = was;
  };
  // Of two addresses that are mapped to the same one, the first stands for it.
  sameAt.forEach((is, was) => {
    if (is >= 0 && before[is] < 0) pair(was, is);
  });
  if (by.includes('redirect')) {
    const ends = pagesNamed(fresh, 'redirect_end');
    for (let page = 0; page < fresh.count; page++) {
      const end = ends[page];
      const was = before[page];
      if (end < 0 || end === page || was < 0 || before[end] >= 0) continue;
      before[page] = -1;
      pair(was, end);
    }
  }
  if (by.includes('canonical')) {
    const named = (from: Snapshot, to: Snapshot, isFree: (page: number) => boolean, pairWith: typeof pair) => {
      const codes = codesIn(from.column('canonical'), to.column('url'), map);
      const pages = pagesByCode(to.column('url'));
      for (let page = 0; page < from.count; page++) {
        const code = isFree(page) ? codes[from.column('canonical').codes[page]] : 0;
        if (code > 0 && pages[code] >= 0) pairWith(page, pages[code]);
      }
    };
    named(
      fresh,
      old,
      (page) => before[page] < 0,
      (is, was) => after[was] < 0 && pair(was, is),
    );
    named(
      old,
      fresh,
      (page) => after[page] < 0,
      (was, is) => before[is] < 0 && pair(was, is),
    );
  }
  const come = pagesByContent(fresh, (page) => before[page] < 0);
  for (const [key, was] of pagesByContent(old, (page) => after[page] < 0)) {
    const is = come.get(key);
    if (is !== undefined) pair(was, is);
  }
  const removed = Int32Array.from(Array.from(after.keys()).filter((page) => after[page] < 0));
  return { old, fresh, map, before, after, sameAt, removed, rows: fresh.count + removed.length };
}

/** The page of the old crawl that a row of a comparison was; −1 when there is none. */
export const oldPageOf = ({ before, removed, fresh: { count } }: Pairing, row: number): number =>
  row < count ? before[row] : removed[row - count];

/** The page of the new crawl that a row of a comparison is; −1 when it is removed. */
export const freshPageOf = ({ fresh: { count } }: Pairing, row: number): number => (row < count ? row : -1);

/** The address that a row had, in the form in which both crawls are compared; null when it is new. */
export function addressBefore(pairing: Pairing, row: number): string | null {
  const page = oldPageOf(pairing, row);
  return page < 0 ? null : pairing.map(addressAt(pairing.old, page));
}

/** The address that a row has, in the same form; null when it is removed. */
export function addressAfter(pairing: Pairing, row: number): string | null {
  const page = freshPageOf(pairing, row);
  return page < 0 ? null : pairing.map(addressAt(pairing.fresh, page));
}

/** Where the page of a row that has moved is now; null when it has not, or leads off the site. */
export function movedTo(pairing: Pairing, row: number): string | null {
  const page = freshPageOf(pairing, row);
  if (page < 0) return null;
  const [was, is] = [addressBefore(pairing, row), addressAfter(pairing, row)];
  if (was !== null && was !== is) return is;
  const end = textAt(pairing.fresh, 'redirect_end', page);
  return end && pairing.map(end);
}
