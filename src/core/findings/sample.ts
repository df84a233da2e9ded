/** Random occurrences of a finding, for whoever judges whether it is right. */
import { fragmentName } from '../html';
import { placements } from '../links';
import type { Message } from '../messages';
import { chance } from '../numbers';
import { numbersOf } from '../selection';
import { addressAt, factAt, sourcesOf, textAt } from '../snapshot';
import type { FactValue } from '../snapshot';
import { findings } from './catalogue';
import type { Finding } from './catalogue';
import { linkReason, pageEvidence } from './evidence';
import { applies, faultsOfFiles, selected } from './findings';
import type { FindingOptions } from './findings';
import type { View } from '../view';

/** One occurrence, with what a judge needs to see. */
export type Occurrence =
  | { over: 'pages'; address: string; facts: Record<string, FactValue>; evidence: Record<string, FactValue> }
  | {
      over: 'links';
      address: string;
      line: number;
      column: number;
      target: string;
      fragment: string;
      words: string;
      placement: string;
      /** The elements that the link stands in. */
      above: string;
      /** What the target calls itself. */
      title: string | null;
      h1: string | null;
      /** What the rule met there; null where the rule says it all. */
      reason: Message | null;
    }
  | { over: 'files'; address: string; line: number | null; evidence: Message };

export interface Sample {
  finding: Finding;
  /** How many occurrences there are. */
  all: number;
  occurrences: Occurrence[];
}

/** Some of many, each as likely as any other, in their order. */
function some<T>(all: ArrayLike<T>, n: number, seed: number): T[] {
  const next = chance(seed);
  const places = Uint32Array.from({ length: all.length }, (_, i) => i);
  const most = Math.min(n, all.length);
  for (let i = 0; i < most; i++) {
    const other = i + next(all.length - i);
    [places[i], places[other]] = [places[other], places[i]];
  }
  return Array.from(places.subarray(0, most).sort(), (place) => all[place]);
}

const shown = [
  'title',
  'h1',
  'verdict',
  'depth',
  'share',
  'pages_linking',
  'pages_linked',
  'word_count',
  'seen_in',
] as const;

/**
 * Draws occurrences of a finding.
 * @param id of the finding
 * @returns null when there is no such finding
 */
export function sampleOf(snapshot: View, id: string, options: FindingOptions, n: number, seed: number): Sample | null {
  const finding = findings.find((one) => one.id === id);
  if (!finding) return null;
  const drawn = <T>(all: ArrayLike<T>, see: (one: T) => Occurrence): Sample => ({
    finding,
    all: all.length,
    occurrences: some(all, n, seed).map(see),
  });
  if (finding.over === 'files') {
    const all = faultsOfFiles(snapshot, options).filter(({ fault }) => fault === id);
    return drawn(all, ({ file, line, evidence }) => ({ over: 'files', address: file, line, evidence }));
  }
  if (!applies(snapshot, finding)) return { finding, all: 0, occurrences: [] };
  const text = finding.select(options.thresholds);
  const numbers = numbersOf(selected(snapshot, finding.over, text));
  if (finding.over === 'pages')
    return drawn(numbers, (page) => ({
      over: 'pages',
      address: addressAt(snapshot, page),
      facts: Object.fromEntries(shown.map((name) => [name, factAt(snapshot, name, page)])),
      evidence: Object.fromEntries(pageEvidence(snapshot, text, page).map(({ name, value }) => [name, value])),
    }));
  const { links, phrases, count } = snapshot;
  const sources = sourcesOf(snapshot);
  return drawn(numbers, (link) => {
    const target = links.target[link];
    const called = (name: 'title' | 'h1') => (target < count ? textAt(snapshot, name, target) : null);
    return {
      over: 'links',
      address: addressAt(snapshot, sources[link]),
      line: links.line[link],
      column: links.column[link],
      target: addressAt(snapshot, target),
      fragment: fragmentName(phrases[links.fragment[link]]),
      words: phrases[links.anchor[link]],
      placement: placements[links.placement[link]],
      above: phrases[links.above[link]],
      title: called('title'),
      h1: called('h1'),
      reason: linkReason(snapshot, id, link),
    };
  });
}
