/** Facts that compare a page with what it was in an earlier crawl: there are none without another crawl beside it. */
import { compared } from './fact';
import { pageFacts } from './pages';
import type { ColumnName } from './pages';
import { pageClasses } from './values';

/** The facts of pages whose changes are told. */
export const comparedColumns = [
  'status',
  'verdict',
  'canonical',
  'title',
  'h1',
  'depth',
  'reach',
  'share',
  'links_in',
  'links_out',
  'word_count',
] satisfies ColumnName[];
export type ComparedColumn = (typeof comparedColumns)[number];

/** What is compared of pages: their facts, and the text of their main content by its fingerprint. */
export const comparedFacts = [...comparedColumns, 'content'] as const;
export type ComparedFact = (typeof comparedFacts)[number];

export const isComparedFact = (name: string): name is ComparedFact =>
  (comparedFacts as readonly string[]).includes(name);

const difference = (label: string, of: 'depth' | 'links_in' | 'links_out' | 'word_count') =>
  compared.number(label, `${pageFacts[of].label} now less what it was; negative when it has become less.`, {
    unit: pageFacts[of].unit,
    as: 'difference',
  });

export const changeFacts = {
  change: compared.choice('Change', 'What became of the page since the earlier crawl.', { values: pageClasses }),
  changed_facts: compared.set('What changed', 'The facts that differ from the earlier crawl.', {
    values: comparedFacts,
  }),
  cost: compared.ratio(
    'Worth',
    'What a change is worth: the larger of the shares that the page had and has; where only links have changed, by how much its share has.',
    { unit: '×' },
  ),
  moved_to: compared.page('Moved to', 'Where a page that has moved is now.'),
  was_url: compared.page(
    'Address then',
    'The address at which the earlier crawl found the page, where it is another one.',
  ),
  share_change: compared.ratio(
    'Share change',
    'Share now less what it was, in multiples of an even split; what only one crawl knows had, or has, none.',
    { unit: '×', as: 'difference', sort: 'low' },
  ),
  depth_change: difference('Depth change', 'depth'),
  links_in_change: difference('Links in change', 'links_in'),
  links_out_change: difference('Links out change', 'links_out'),
  word_count_change: difference('Words change', 'word_count'),
  content_likeness: compared.ratio(
    'Likeness',
    'How many of the 64 bits of its fingerprint the content shares with what it was: 1 is the same, about 0.5 is unlike.',
    { sort: 'low' },
  ),
};
export type ChangeFactName = keyof typeof changeFacts;

export const isChangeFact = (name: string): name is ChangeFactName => Object.hasOwn(changeFacts, name);

/** What a comparison says of links. */
export const linkChangeFacts = {
  added: compared.flag(
    'Added',
    'Whether the link has come since the earlier crawl, on a page that both crawls have read.',
  ),
  removed: compared.flag(
    'Removed',
    'Whether the link has gone from a page that both crawls have read: only lists of what changed have such links.',
  ),
};
export type LinkChangeFactName = keyof typeof linkChangeFacts;

export const isLinkChangeFact = (name: string): name is LinkChangeFactName => Object.hasOwn(linkChangeFacts, name);
