/** What became of each page from one crawl to another. */
import { comparedFacts, pageClasses, verdicts } from '../facts';
import type { ComparedFact, PageClass } from '../facts';
import { factAt, isText } from '../snapshot';
import type { FactValue, Snapshot } from '../snapshot';
import { contentDiffers, likenessOf } from './likeness';
import { codesIn, freshPageOf, oldPageOf, pairPages } from './pair';
import type { PairOptions, Pairing } from './pair';
import { sameAddress } from './pairing';

export interface Comparison<S extends Snapshot = Snapshot> extends Pairing<S> {
  /** The class of each row: an index into `pageClasses`. */
  change: Uint8Array;
  /** A bit for each of `comparedFacts` that differs; none where only one crawl knows the page. By row. */
  changed: Uint16Array;
}

/** Share moves a little everywhere: a change is told from so large a part of it on, and so large a distance. */
const SHARE_FACTOR = 1.5;
const SHARE_DISTANCE = 0.1;

function sharesDiffer(before: number, after: number): boolean {
  if (before < 0 || after < 0) return before < 0 !== after < 0;
  const [low, high] = before < after ? [before, after] : [after, before];
  return high - low >= SHARE_DISTANCE && high >= SHARE_FACTOR * low;
}

/** A test whether a fact of a page of the old crawl and of one of the new one differ. */
function differsIn({ old, fresh, map }: Pairing, fact: ComparedFact): (was: number, is: number) => boolean {
  if (fact === 'content') return (was, is) => contentDiffers(old, fresh, was, is);
  const [before, after] = [old.column(fact), fresh.column(fact)];
  if (isText(before) && isText(after)) {
    const same = codesIn(before, after, fact === 'canonical' ? map : sameAddress);
    return (was, is) => same[before.codes[was]] !== after.codes[is];
  }
  const [then, now] = [before as Float64Array, after as Float64Array];
  return fact === 'share'
    ? (was, is) => sharesDiffer(then[was], now[is])
    : (was, is) => then[was] !== now[is] && (then[was] >= 0 || now[is] >= 0);
}

const [HERE, MISSING, REDIRECT, OTHER] = [0, 1, 2, 3];
const redirected = verdicts.indexOf('redirect');
function answerOf({ column }: Snapshot, page: number): number {
  const status = column('status');
  const verdict = column('verdict');
  if (verdict[page] === redirected) return REDIRECT;
  if (status[page] >= 200 && status[page] < 300) return HERE;
  return status[page] === 404 || status[page] === 410 ? MISSING : OTHER;
}

function classOf(before: number, after: number, isEqual: boolean): PageClass {
  if (before === HERE && after === MISSING) return 'gone';
  if (before === HERE && after === REDIRECT) return 'moved';
  if (after === HERE && (before === MISSING || before === REDIRECT)) return 'returned';
  return isEqual ? 'same' : 'changed';
}

/** Compares the pages of two crawls. */
export function comparePages<S extends Snapshot>(old: S, fresh: S, options: PairOptions = {}): Comparison<S> {
  const pairing = pairPages(old, fresh, options);
  const { before, sameAt, rows } = pairing;
  const changed = new Uint16Array(rows);
  comparedFacts.forEach((fact, bit) => {
    const differs = differsIn(pairing, fact);
    for (let page = 0; page < fresh.count; page++)
      if (before[page] >= 0 && differs(before[page], page)) changed[page] |= 1 << bit;
  });
  /** Addresses that both crawls know, though the page that was there has been paired with another. */
  const known = new Uint8Array(fresh.count);
  for (const page of sameAt) if (page >= 0) known[page] = 1;
  const code = Object.fromEntries(pageClasses.map((name, i) => [name, i])) as Record<PageClass, number>;
  const change = new Uint8Array(rows).fill(code.removed);
  for (let page = 0; page < fresh.count; page++) {
    const was = before[page];
    if (was < 0) change[page] = known[page] ? code.moved : code.added;
    else if (sameAt[was] < 0) change[page] = code.moved;
    else change[page] = code[classOf(answerOf(old, was), answerOf(fresh, page), changed[page] === 0)];
  }
  return { ...pairing, change, changed };
}

/** How many rows of a comparison are of each class. */
export function classCounts({ change }: Pick<Comparison, 'change'>): Record<PageClass, number> {
  const counts = pageClasses.map(() => 0);
  for (const code of change) counts[code]++;
  return Object.fromEntries(pageClasses.map((name, i) => [name, counts[i]])) as Record<PageClass, number>;
}

/**
 * A compared fact of a row, then and now; null where it is unknown or there is no such page. Of the content it is told
 * how much it is like what it was, which is 1.
 */
export function factsOf(
  comparison: Comparison,
  fact: ComparedFact,
  row: number,
): { before: FactValue; after: FactValue } {
  const { old, fresh } = comparison;
  const [was, is] = [oldPageOf(comparison, row), freshPageOf(comparison, row)];
  if (fact === 'content') {
    const likeness = likenessOf(old, fresh, was, is);
    return Number.isNaN(likeness) ? { before: null, after: null } : { before: 1, after: likeness };
  }
  const at = (snapshot: Snapshot, page: number) => {
    const value = page < 0 ? null : factAt(snapshot, fact, page);
    return fact === 'canonical' && typeof value === 'string' ? comparison.map(value) : value;
  };
  return { before: at(old, was), after: at(fresh, is) };
}

/** What changes with a link of other pages, or of a template. */
export const changedByLinks = ['links_in', 'links_out', 'share'] as const satisfies ComparedFact[];
const otherBits = comparedFacts.reduce(
  (bits, fact, i) => ((changedByLinks as readonly string[]).includes(fact) ? bits : bits | (1 << i)),
  0,
);
const CHANGED = pageClasses.indexOf('changed');

/** Whether of a row only what links to its page, and what it links to, has changed. */
export const changedInLinksOnly = ({ change, changed }: Pick<Comparison, 'change' | 'changed'>, row: number): boolean =>
  change[row] === CHANGED && (changed[row] & otherBits) === 0;

/**
 * What a change of a row is worth: the larger of the shares that its page had and has; where only links have changed,
 * by how much its share has.
 */
export function costOf(comparison: Comparison, row: number): number {
  const share = ({ column }: Snapshot, page: number) => (page < 0 ? 0 : Math.max(0, column('share')[page]));
  const before = share(comparison.old, oldPageOf(comparison, row));
  const after = share(comparison.fresh, freshPageOf(comparison, row));
  return changedInLinksOnly(comparison, row) ? Math.abs(after - before) : Math.max(before, after);
}
