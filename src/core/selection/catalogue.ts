/** What a selection can ask: facts of pages, facts of links, and the words that stand for a comparison. */
import { linkElements, linkFaults, linkKinds } from '../links';
import { reaches } from '../reach';
import { facts } from '../snapshot/facts';
import type { FactType } from '../snapshot/facts';
import { verdicts } from '../verdict';

export interface Asked {
  type: FactType;
  label: string;
  values?: readonly string[];
}

export interface Catalogue {
  /** What the tests are about, in the plural. */
  of: 'pages' | 'links';
  facts: Readonly<Record<string, Asked>>;
  /** Words that are a test by themselves: a value of a fact. */
  words: ReadonlyMap<string, { fact: string; value: string }>;
}

const wordsFor = (fact: string, values: readonly string[]) =>
  values.map((value): [string, { fact: string; value: string }] => [value, { fact, value }]);

export const pageCatalogue: Catalogue = {
  of: 'pages',
  facts,
  // A fact of the same name goes before: `noindex` is the fact.
  words: new Map([...wordsFor('verdict', verdicts), ...wordsFor('reach', reaches)]),
};

/** Placements as they are written; a link in no landmark has `none`. */
export const placements = ['none', 'header', 'nav', 'main', 'aside', 'footer'] as const;

/** Facts of links, under their one name. */
export const linkFacts = {
  kind: { type: 'choice', label: 'Kind', values: linkKinds },
  element: { type: 'choice', label: 'Element', values: linkElements },
  placement: { type: 'choice', label: 'Placement', values: placements },
  anchor: { type: 'text', label: 'Anchor' },
  rel: { type: 'text', label: 'Rel' },
  above: { type: 'text', label: 'Elements above' },
  fragment: { type: 'text', label: 'Fragment' },
  target: { type: 'text', label: 'Target' },
  line: { type: 'number', label: 'Line' },
  faults: { type: 'set', label: 'Faults', values: linkFaults },
  followed: { type: 'flag', label: 'Followed' },
  external: { type: 'flag', label: 'Leads outside' },
  self: { type: 'flag', label: 'To its own page' },
  relative: { type: 'flag', label: 'Written without host' },
  target_status: { type: 'number', label: 'Status of the target' },
} as const satisfies Record<string, Asked>;
export type LinkFactName = keyof typeof linkFacts;

export const linkCatalogue: Catalogue = {
  of: 'links',
  facts: linkFacts,
  words: new Map(wordsFor('kind', linkKinds)),
};
