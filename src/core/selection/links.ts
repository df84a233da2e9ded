import { linkChangesOf } from '../compare';
import type { Comparison } from '../compare';
import { isLinkChangeFact } from '../facts';
import type { LinkChangeFactName, LinkFactName } from '../facts';
import { linkValues } from '../linkFacts';
import type { LinkValues } from '../linkFacts';
import { addressAt } from '../snapshot';
import { bitsOfCodes, bitsWhere, hasBit, noBits, setBit, setRange } from './bits';
import type { Bits } from './bits';
import { NO_EARLIER } from './changes';
import { combine, evaluate } from './evaluate';
import type { Selection } from './selection';
import { predicate } from './predicate';
import type { View } from '../view';
import { selectionFault } from '../errors';

type Value = string | number | null;

/** A test for each of some numbers. */
const testEach = (count: number, test: (i: number) => boolean) => {
  const passes = new Uint8Array(count);
  for (let i = 0; i < count; i++) passes[i] = Number(test(i));
  return passes;
};

/** The links that lead to targets which pass. */
const linksTo = ({ count, outside, links: { target } }: View, test: (target: number) => boolean): Bits =>
  bitsOfCodes(target, testEach(count + outside.length, test));

/** The links that stand on pages which pass. */
function linksFrom({ count, links: { offsets, target } }: View, test: (page: number) => boolean): Bits {
  const bits = noBits(target.length);
  for (let page = 0; page < count; page++) if (test(page)) setRange(bits, offsets[page], offsets[page + 1]);
  return bits;
}

/** The links whose value passes; a null is unknown. */
function bitsOf(snapshot: View, asked: LinkValues, test: (value: Value) => boolean): Bits {
  const size = snapshot.links.target.length;
  const known = (number: number): Value => (number < 0 ? null : number);
  switch (asked.kind) {
    case 'phrase':
    case 'choice':
      return bitsOfCodes(
        asked.codes,
        testEach(asked.values.length, (code) => test(asked.values[code])),
      );
    case 'address': {
      // Few addresses, each of many links.
      const { ofLink } = asked;
      const passes = testEach(snapshot.count + snapshot.outside.length, (page) => test(addressAt(snapshot, page)));
      const ofNone = Number(test(null));
      return bitsWhere(size, (link) => (passes[ofLink(link)] ?? ofNone) === 1);
    }
    case 'target':
      return linksTo(snapshot, (target) => {
        const value = asked.ofTarget(target);
        return test(asked.values ? (asked.values[value] ?? null) : known(value));
      });
    case 'source':
      return linksFrom(snapshot, (page) => test(known(asked.ofSource(page))));
    case 'number':
      return bitsWhere(size, (link) => test(known(asked.ofLink(link))));
    case 'flag':
      return bitsWhere(size, (link) => test(Number(asked.ofLink(link))));
    case 'set':
      return bitsWhere(size, (link) => asked.values.some((value, bit) => asked.bits[link] & (1 << bit) && test(value)));
  }
}

/** What is asked of the links of a crawl that a later one is compared with. */
export interface AskedThen {
  comparison: Comparison<View>;
  /** The pages of the earlier crawl that a selection holds. */
  pagesOf: (selection: Selection) => Bits;
}

/** The links that came or went. @throws selection when there is no earlier crawl */
function changedLinks(snapshot: View, fact: LinkChangeFactName, then?: AskedThen): Bits {
  const comparison = then?.comparison ?? snapshot.comparison;
  if (!comparison) throw selectionFault(NO_EARLIER, 0, 0);
  const bits = noBits(snapshot.links.target.length);
  // What came is in the later crawl only, and what went in the earlier.
  if ((fact === 'removed') === Boolean(then)) for (const link of linkChangesOf(comparison)[fact]) setBit(bits, link);
  return bits;
}

/**
 * The links of a snapshot that a selection of links holds. Unknown compares false; `is unknown` finds it.
 * @param selection as `parseLinkSelection` gives it
 * @param then for the links of an earlier crawl
 * @throws selection when it asks for an earlier crawl, and there is none
 */
export function evaluateLinks(snapshot: View, selection: Selection, then?: AskedThen): Bits {
  const { count } = snapshot;
  const size = snapshot.links.target.length;
  const values = linkValues(snapshot);
  const tested = (fact: LinkFactName, test: (value: string | number) => boolean): Bits =>
    bitsOf(snapshot, values[fact](), (value) => value !== null && test(value));

  return combine(selection, size, (part) => {
    if (part.op === 'step') {
      const pages = then ? then.pagesOf(part.of) : evaluate(snapshot, part.of);
      return part.step === 'to'
        ? linksTo(snapshot, (target) => target < count && hasBit(pages, target))
        : linksFrom(snapshot, (page) => hasBit(pages, page));
    }
    if (!('fact' in part)) throw new Error(`“${part.op}” is no test of links.`);
    // They are known of every link.
    if (isLinkChangeFact(part.fact)) return part.op === 'flag' ? changedLinks(snapshot, part.fact, then) : noBits(size);
    const fact = part.fact as LinkFactName;
    if (part.op === 'flag') return tested(fact, (value) => value === 1);
    if (part.op === 'unknown') return bitsOf(snapshot, values[fact](), (value) => value === null);
    if (part.op === 'in') {
      const wanted = new Set(part.values);
      return tested(fact, (value) => wanted.has(value));
    }
    // Of a set it is asked what it has.
    return tested(fact, predicate(fact === 'faults' ? '=' : part.comparison, part.value));
  });
}
