/**
 * How each fact of links is read, once for lists, selections and files. What is kept of a link follows from the
 * description of its fields (src/core/links/fields.ts); the rest is worked out of it here.
 */
import { verdicts } from '../facts';
import type { LinkFactName } from '../facts';
import { CLICK_KIND, linkFaults, linkFieldNames, linkFields, RELATIVE } from '../links';
import { nofollowRels } from '../reach';
import { finalTargetsOf } from '../share';
import { sourcesOf } from '../snapshot';
import type { Snapshot, WholeNumbers } from '../snapshot';

/**
 * The values of a fact. There are many links and few different codes, targets and sources: whoever tests them tests
 * each of these once. Numbers below zero are unknown.
 */
export type LinkValues =
  /** Indexes of texts that are in no order, 0 for none; or of a list of choices. */
  | { kind: 'phrase' | 'choice'; codes: WholeNumbers; values: readonly string[] }
  /** The number of a page or of an outside target. */
  | { kind: 'address'; ofLink: (link: number) => number }
  | { kind: 'number'; ofLink: (link: number) => number }
  /** A number, or the index of a choice. */
  | { kind: 'target'; ofTarget: (target: number) => number; values?: readonly string[] }
  | { kind: 'source'; ofSource: (page: number) => number }
  | { kind: 'flag'; ofLink: (link: number) => boolean }
  | { kind: 'set'; bits: Uint16Array; values: readonly string[] };

/** A test whether a search crawler follows a link. */
export function followedTest(snapshot: Snapshot): (link: number) => boolean {
  const { links, phrases, column } = snapshot;
  const source = sourcesOf(snapshot);
  const nofollow = nofollowRels(phrases);
  const pageNofollow = column('page_nofollow');
  return (link) =>
    links.kind[link] === CLICK_KIND && nofollow[links.rel[link]] === 0 && pageNofollow[source[link]] !== 1;
}

type FieldFact = Exclude<(typeof linkFieldNames)[number], 'target' | 'marks'>;

/** The values of what is kept of a link. */
function fieldValues(name: FieldFact, { links, phrases }: Snapshot): LinkValues {
  const field = linkFields[name];
  if (field.holds === 'phrase') return { kind: 'phrase', codes: links[name], values: phrases };
  if (field.holds === 'choice') return { kind: 'choice', codes: links[name], values: field.values };
  // No line and no column: the link is in no document.
  return { kind: 'number', ofLink: (link) => links[name][link] || -1 };
}

/** The makers of all values of a snapshot's links; each is made when it is asked for. */
export function linkValues(snapshot: Snapshot): Record<LinkFactName, () => LinkValues> {
  const { count, links, column } = snapshot;
  const { target } = links;
  const field = (name: FieldFact) => () => fieldValues(name, snapshot);
  const flag = (ofLink: (link: number) => boolean) => (): LinkValues => ({ kind: 'flag', ofLink });
  return {
    kind: field('kind'),
    element: field('element'),
    placement: field('placement'),
    anchor: field('anchor'),
    rel: field('rel'),
    above: field('above'),
    fragment: field('fragment'),
    line: field('line'),
    column: field('column'),
    source: () => {
      const source = sourcesOf(snapshot);
      return { kind: 'address', ofLink: (link) => source[link] };
    },
    target: () => ({ kind: 'address', ofLink: (link) => target[link] }),
    // Where redirects and canonicals lead, when that is another page.
    ends_at: () => {
      const finals = finalTargetsOf(snapshot);
      const endOf = (to: number) => (to >= count || finals[to] === to ? -1 : finals[to]);
      return { kind: 'address', ofLink: (link) => endOf(target[link]) };
    },
    target_verdict: () => {
      const verdict = column('verdict');
      return { kind: 'target', ofTarget: (to) => verdict[to] ?? -1, values: verdicts };
    },
    target_status: () => {
      const status = column('status');
      const { checks } = snapshot;
      return { kind: 'target', ofTarget: (to) => (to < count ? status[to] : (checks[to - count]?.status ?? -1)) };
    },
    source_share: () => {
      const share = column('share');
      return { kind: 'source', ofSource: (page) => share[page] };
    },
    followed: () => ({ kind: 'flag', ofLink: followedTest(snapshot) }),
    external: flag((link) => target[link] >= count),
    relative: flag((link) => (links.marks[link] & RELATIVE) !== 0),
    self: () => {
      const source = sourcesOf(snapshot);
      return { kind: 'flag', ofLink: (link) => source[link] === target[link] };
    },
    faults: () => ({ kind: 'set', bits: links.faults, values: linkFaults }),
  };
}
