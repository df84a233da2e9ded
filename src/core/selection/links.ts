import { linkElements, linkKinds, placements, CLICK_KIND, RELATIVE } from '../links';
import { linkChangesOf } from '../compare';
import type { Comparison } from '../compare';
import { isLinkChangeFact, linkFacts, verdicts } from '../facts';
import type { LinkChangeFactName, LinkFactName } from '../facts';
import { nofollowRels } from '../reach';
import { finalTargetsOf } from '../share';
import { addressAt } from '../snapshot';
import type { WholeNumbers } from '../snapshot';
import { bitsOfCodes, bitsWhere, bothBits, hasBit, noBits, otherBits, setBit, setRange } from './bits';
import type { Bits } from './bits';
import { NO_EARLIER } from './changes';
import { combine, evaluate } from './evaluate';
import { Fault } from './lexer';
import type { Selection } from './parse';
import { predicate } from './predicate';
import type { View } from '../view';

type Value = string | number | null;

/**
 * How a fact of links is read. There are many links and few different codes, targets and sources: each of these is tested
 * once. A null is unknown.
 */
type Reader =
  | { codes: WholeNumbers; values: readonly Value[] }
  | { ofTarget: (target: number) => Value }
  | { ofSource: (page: number) => Value }
  | { ofLink: (link: number) => Value }
  | { flag: () => Bits };

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

/** Links of a page to itself. */
function selfLinks({ count, links: { offsets, target } }: View): Bits {
  const bits = noBits(target.length);
  for (let page = 0; page < count; page++)
    for (let link = offsets[page]; link < offsets[page + 1]; link++) if (target[link] === page) setBit(bits, link);
  return bits;
}

/** The links that a search crawler follows. */
function followedLinks(snapshot: View): Bits {
  const { links, phrases, column } = snapshot;
  const nofollow = nofollowRels(phrases);
  const clicks = bitsOfCodes(
    links.kind,
    testEach(linkKinds.length, (kind) => kind === CLICK_KIND),
  );
  const rels = bitsOfCodes(
    links.rel,
    testEach(phrases.length, (rel) => nofollow[rel] === 0),
  );
  const pages = linksFrom(snapshot, (page) => column('page_nofollow')[page] === 1);
  return bothBits(bothBits(clicks, rels), otherBits(pages));
}

/** The readers of all facts of links but sets, made when they are asked for. */
function readersOf(snapshot: View): Record<Exclude<LinkFactName, 'faults'>, () => Reader> {
  const { count, links, phrases, column, checks } = snapshot;
  const known = (value: number): Value => (value < 0 ? null : value);
  const text = (codes: WholeNumbers): Reader => ({ codes, values: phrases });
  return {
    source: () => ({ ofSource: (page) => addressAt(snapshot, page) }),
    target: () => ({ ofTarget: (target) => addressAt(snapshot, target) }),
    ends_at: () => {
      const finals = finalTargetsOf(snapshot);
      return {
        ofTarget: (target) =>
          target >= count || finals[target] === target || finals[target] < 0
            ? null
            : addressAt(snapshot, finals[target]),
      };
    },
    anchor: () => text(links.anchor),
    rel: () => text(links.rel),
    above: () => text(links.above),
    fragment: () => text(links.fragment),
    kind: () => ({ codes: links.kind, values: linkKinds }),
    element: () => ({ codes: links.element, values: linkElements }),
    placement: () => ({ codes: links.placement, values: placements }),
    target_verdict: () => ({ ofTarget: (target) => (target < count ? verdicts[column('verdict')[target]] : null) }),
    target_status: () => ({
      ofTarget: (target) =>
        target < count ? known(column('status')[target]) : (checks[target - count]?.status ?? null),
    }),
    // No line and no column: the link is in no document.
    line: () => ({ ofLink: (link) => links.line[link] || null }),
    column: () => ({ ofLink: (link) => links.column[link] || null }),
    source_share: () => ({ ofSource: (page) => known(column('share')[page]) }),
    external: () => ({ flag: () => linksTo(snapshot, (target) => target >= count) }),
    relative: () => ({ flag: () => bitsWhere(links.marks.length, (link) => (links.marks[link] & RELATIVE) !== 0) }),
    self: () => ({ flag: () => selfLinks(snapshot) }),
    followed: () => ({ flag: () => followedLinks(snapshot) }),
  };
}

/** The links whose value passes. */
function bitsOf(snapshot: View, reader: Reader, test: (value: Value) => boolean): Bits {
  const size = snapshot.links.target.length;
  if ('codes' in reader)
    return bitsOfCodes(
      reader.codes,
      testEach(reader.values.length, (code) => test(reader.values[code])),
    );
  if ('ofTarget' in reader) return linksTo(snapshot, (target) => test(reader.ofTarget(target)));
  if ('ofSource' in reader) return linksFrom(snapshot, (page) => test(reader.ofSource(page)));
  if ('ofLink' in reader) return bitsWhere(size, (link) => test(reader.ofLink(link)));
  return test(1) ? reader.flag() : noBits(size);
}

/** What is asked of the links of a crawl that a later one is compared with. */
export interface AskedThen {
  comparison: Comparison<View>;
  /** The pages of the earlier crawl that a selection holds. */
  pagesOf: (selection: Selection) => Bits;
}

/** The links that came or went. @throws Fault when there is no earlier crawl */
function changedLinks(snapshot: View, fact: LinkChangeFactName, then?: AskedThen): Bits {
  const comparison = then?.comparison ?? snapshot.comparison;
  if (!comparison) throw new Fault(NO_EARLIER, 0, 0);
  const bits = noBits(snapshot.links.target.length);
  // What came is in the later crawl only, and what went in the earlier.
  if ((fact === 'removed') === Boolean(then)) for (const link of linkChangesOf(comparison)[fact]) setBit(bits, link);
  return bits;
}

/**
 * The links of a snapshot that a selection of links holds. Unknown compares false; `is unknown` finds it.
 * @param selection as `parseLinkSelection` gives it
 * @param then for the links of an earlier crawl
 * @throws Fault when it asks for an earlier crawl, and there is none
 */
export function evaluateLinks(snapshot: View, selection: Selection, then?: AskedThen): Bits {
  const { count, links } = snapshot;
  const size = links.target.length;
  const readers = readersOf(snapshot);
  const tested = (fact: keyof typeof readers, test: (value: string | number) => boolean): Bits =>
    bitsOf(snapshot, readers[fact](), (value) => value !== null && test(value));

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
    if (fact === 'faults') {
      if (part.op === 'unknown') return noBits(size);
      const bit = 'value' in part ? 1 << linkFacts.faults.values.findIndex((one) => one === part.value) : 0;
      return bitsWhere(size, (link) => (links.faults[link] & bit) !== 0);
    }
    if (part.op === 'flag') return tested(fact, (value) => value === 1);
    if (part.op === 'unknown') return bitsOf(snapshot, readers[fact](), (value) => value === null);
    if (part.op === 'in') {
      const values = new Set(part.values);
      return tested(fact, (value) => values.has(value));
    }
    return tested(fact, predicate(part.comparison, part.value));
  });
}
