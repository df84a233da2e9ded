/** Facts that compare a page with what it was in an earlier crawl: there are none without another crawl beside it. */
import { pageFacts } from './pages';
import type { ColumnName, Fact } from './pages';
import { pageClasses } from './values';

/** The facts of pages whose changes are told. */
export const comparedColumns = [
  ...(['status', 'verdict', 'canonical', 'title', 'h1', 'depth', 'reach', 'share'] as const),
  ...(['links_in', 'links_out', 'word_count'] as const),
] satisfies ColumnName[];
export type ComparedColumn = (typeof comparedColumns)[number];

/** What is compared of pages: their facts, and the text of their main content by its fingerprint. */
export const comparedFacts = [...comparedColumns, 'content'] as const;
export type ComparedFact = (typeof comparedFacts)[number];

export const isComparedFact = (name: string): name is ComparedFact =>
  (comparedFacts as readonly string[]).includes(name);

/** A fact of change: it comes of a comparison, and of nothing else. */
export type ChangeFact = Omit<Fact, 'from' | 'csv' | 'limit' | 'as'> & {
  /** `difference`: shown with its sign. */
  as?: Fact['as'] | 'difference';
};

const difference = (label: string, of: 'depth' | 'links_in' | 'links_out' | 'word_count'): ChangeFact => ({
  type: 'number',
  unit: pageFacts[of].unit,
  as: 'difference',
  label,
  meaning: `${pageFacts[of].label} now less what it was; negative when it has become less.`,
  sort: 'high',
});

export const changeFacts = {
  change: {
    type: 'choice',
    label: 'Change',
    meaning: 'What became of the page since the earlier crawl.',
    values: pageClasses,
    sort: 'low',
  },
  changed_facts: {
    type: 'set',
    label: 'What changed',
    meaning: 'The facts that differ from the earlier crawl.',
    values: comparedFacts,
    sort: 'high',
  },
  cost: {
    type: 'ratio',
    unit: '×',
    label: 'Worth',
    meaning:
      'What a change is worth: the larger of the shares that the page had and has; where only links have changed, by how much its share has.',
    sort: 'high',
  },
  moved_to: {
    type: 'text',
    label: 'Moved to',
    meaning: 'Where a page that has moved is now.',
    as: 'address',
    sort: 'low',
  },
  was_url: {
    type: 'text',
    label: 'Address then',
    meaning: 'The address at which the earlier crawl found the page, where it is another one.',
    as: 'address',
    sort: 'low',
  },
  share_change: {
    type: 'ratio',
    unit: '×',
    as: 'difference',
    label: 'Share change',
    meaning: 'Share now less what it was, in multiples of an even split; what only one crawl knows had, or has, none.',
    sort: 'low',
  },
  depth_change: difference('Depth change', 'depth'),
  links_in_change: difference('Links in change', 'links_in'),
  links_out_change: difference('Links out change', 'links_out'),
  word_count_change: difference('Words change', 'word_count'),
  content_likeness: {
    type: 'ratio',
    label: 'Likeness',
    meaning:
      'How many of the 64 bits of its fingerprint the content shares with what it was: 1 is the same, about 0.5 is unlike.',
    sort: 'low',
  },
} as const satisfies Record<string, ChangeFact>;
export type ChangeFactName = keyof typeof changeFacts;

export const isChangeFact = (name: string): name is ChangeFactName => Object.hasOwn(changeFacts, name);

/** What a comparison says of links. */
export const linkChangeFacts = {
  added: {
    type: 'flag',
    label: 'Added',
    meaning: 'Whether the link has come since the earlier crawl, on a page that both crawls have read.',
    sort: 'high',
  },
  removed: {
    type: 'flag',
    label: 'Removed',
    meaning:
      'Whether the link has gone from a page that both crawls have read: only lists of what changed have such links.',
    sort: 'high',
  },
} as const satisfies Record<string, ChangeFact>;
export type LinkChangeFactName = keyof typeof linkChangeFacts;

export const isLinkChangeFact = (name: string): name is LinkChangeFactName => Object.hasOwn(linkChangeFacts, name);
