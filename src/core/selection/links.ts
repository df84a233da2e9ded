import { linkFacts } from '../facts';
import type { LinkFactName } from '../facts';
import { CLICK_KIND, RELATIVE } from '../links';
import { nofollowRels } from '../reach';
import { finalTargetsOf } from '../share';
import { addressAt, sourcesOf } from '../snapshot';
import type { Snapshot } from '../snapshot';
import { bitsOfCodes, bitsWhere, hasBit } from './bits';
import type { Bits } from './bits';
import { combine, evaluate } from './evaluate';
import type { Selection } from './parse';
import { predicate } from './predicate';

/** How a fact of links is read: a code for each link, negative where unknown, and what the codes stand for. */
type Reader =
  | { codes: ArrayLike<number>; texts: readonly string[] }
  | { of: (link: number) => number; values?: readonly string[] }
  | { address: (link: number) => number };

/** The readers of all facts of links but sets, made when they are asked for. */
function readersOf(snapshot: Snapshot): Record<Exclude<LinkFactName, 'faults'>, () => Reader> {
  const { count, links, phrases, columns, checks } = snapshot;
  const { target } = links;
  const flag = (test: (link: number) => boolean): Reader => ({ of: (link) => Number(test(link)) });
  const text = (codes: Uint32Array): Reader => ({ codes, texts: phrases });
  return {
    source: () => {
      const source = sourcesOf(snapshot);
      return { address: (link) => source[link] };
    },
    target: () => ({ address: (link) => target[link] }),
    ends_at: () => {
      const finals = finalTargetsOf(snapshot);
      return { address: (link) => (finals[target[link]] === target[link] ? -1 : (finals[target[link]] ?? -1)) };
    },
    anchor: () => text(links.anchor),
    rel: () => text(links.rel),
    above: () => text(links.above),
    fragment: () => text(links.fragment),
    kind: () => ({ of: (link) => links.kind[link], values: linkFacts.kind.values }),
    element: () => ({ of: (link) => links.element[link], values: linkFacts.element.values }),
    placement: () => ({ of: (link) => links.placement[link], values: linkFacts.placement.values }),
    target_verdict: () => ({
      of: (link) => columns.verdict[target[link]] ?? -1,
      values: linkFacts.target_verdict.values,
    }),
    target_status: () => ({
      of: (link) =>
        target[link] < count ? columns.status[target[link]] : (checks[target[link] - count]?.status ?? -1),
    }),
    // No line and no column: the link is in no document.
    line: () => ({ of: (link) => links.line[link] || -1 }),
    column: () => ({ of: (link) => links.column[link] || -1 }),
    source_share: () => {
      const source = sourcesOf(snapshot);
      return { of: (link) => columns.share[source[link]] };
    },
    external: () => flag((link) => target[link] >= count),
    relative: () => flag((link) => (links.marks[link] & RELATIVE) !== 0),
    self: () => {
      const source = sourcesOf(snapshot);
      return flag((link) => target[link] === source[link]);
    },
    followed: () => {
      const source = sourcesOf(snapshot);
      const nofollow = nofollowRels(phrases);
      const page = columns.page_nofollow;
      return flag(
        (link) => links.kind[link] === CLICK_KIND && nofollow[links.rel[link]] === 0 && page[source[link]] !== 1,
      );
    },
  };
}

/**
 * The links of a snapshot that a selection of links holds. Unknown compares false; `is unknown` finds it.
 * @param selection as `parseLinkSelection` gives it
 * @param pagesOf the pages that a selection holds, for links of a crawl that is compared with a later one
 */
export function evaluateLinks(
  snapshot: Snapshot,
  selection: Selection,
  pagesOf: (selection: Selection) => Bits = (of) => evaluate(snapshot, of),
): Bits {
  const { count, links } = snapshot;
  const size = links.target.length;
  const readers = readersOf(snapshot);

  const tested = (fact: keyof typeof readers, test: (value: string | number) => boolean): Bits => {
    const reader = readers[fact]();
    if ('codes' in reader)
      return bitsOfCodes(
        reader.codes as Uint32Array,
        Uint8Array.from(reader.texts, (text) => Number(test(text))),
      );
    if ('address' in reader) {
      const passes = new Uint8Array(count + snapshot.outside.length);
      for (let page = 0; page < passes.length; page++) passes[page] = Number(test(addressAt(snapshot, page)));
      return bitsWhere(size, (link) => passes[reader.address(link)] === 1);
    }
    const passes = reader.values && Uint8Array.from(reader.values, (value) => Number(test(value)));
    return bitsWhere(size, (link) => {
      const value = reader.of(link);
      return value >= 0 && (passes ? passes[value] === 1 : test(value));
    });
  };
  const unknown = (fact: keyof typeof readers): Bits => {
    const reader = readers[fact]();
    if ('codes' in reader) return bitsWhere(size, () => false);
    const of = 'address' in reader ? reader.address : reader.of;
    return bitsWhere(size, (link) => of(link) < 0);
  };

  return combine(selection, size, (part) => {
    if (part.op === 'step') {
      const pages = pagesOf(part.of);
      if (part.step === 'to')
        return bitsWhere(size, (link) => links.target[link] < count && hasBit(pages, links.target[link]));
      const source = sourcesOf(snapshot);
      return bitsWhere(size, (link) => hasBit(pages, source[link]));
    }
    if (!('fact' in part)) throw new Error(`“${part.op}” is no test of links.`);
    const fact = part.fact as LinkFactName;
    if (fact === 'faults') {
      if (part.op === 'unknown') return bitsWhere(size, () => false);
      const bit = 'value' in part ? 1 << linkFacts.faults.values.findIndex((one) => one === part.value) : 0;
      return bitsWhere(size, (link) => (links.faults[link] & bit) !== 0);
    }
    if (part.op === 'flag') return tested(fact, (value) => value === 1);
    if (part.op === 'unknown') return unknown(fact);
    if (part.op === 'in') {
      const values = new Set(part.values);
      return tested(fact, (value) => values.has(value));
    }
    return tested(fact, predicate(part.comparison, part.value));
  });
}
