/** The texts of the watch list. */
import { counted, number } from '../shell/words';

export const texts = {
  heading: 'Watch list',
  empty: 'Nothing is watched yet. A bound such as “indexable orphans: at most 0” is checked after every crawl.',
  breaks: (n: number) => counted(n, 'bound of the watch list breaks', 'bounds of the watch list break'),
  brokenAtMost: (name: string, count: number, atMost: number) =>
    `${name}: ${number(count)}, at most ${number(atMost)} ${atMost === 1 ? 'is' : 'are'} wanted`,
  brokenRise: (name: string, before: number, count: number) =>
    `${name}: ${number(count)}, up from ${number(before)}; it must not rise`,
  name: 'What is watched',
  now: 'Now',
  before: 'Before',
  bound: 'Bound',
  atMost: (n: number) => `at most ${number(n)}`,
  noRise: 'must not rise',
  holds: 'holds',
  broken: 'breaks',
  notAnswered: (fault: string) => `cannot be answered: ${fault}`,
  remove: 'Remove',
  removed: (name: string) => `“${name}” is no longer watched.`,
  add: 'Watch something',
  what: 'What',
  ofSaved: 'Saved selections',
  ofKeyPages: 'Key pages',
  ofFindings: 'Findings',
  ownSelection: 'a selection of pages …',
  selection: 'Selection of pages',
  selectionExample: 'indexable and orphan',
  nameOf: 'Name',
  nameExample: 'Indexable orphans',
  boundOf: 'Bound',
  boundIsAtMost: 'at most',
  most: 'The most there may be',
  addNow: 'Add',
  added: (name: string) => `“${name}” is watched after every crawl.`,
  links: (name: string) => `${name} (links)`,
  firstCrawl: 'There is no crawl before to compare with.',
};

/** What is often asked of key pages. */
export const keyBounds: readonly { name: string; text: string }[] = [
  { name: 'Key pages that may not be indexed', text: 'key and not indexable' },
  { name: 'Key pages without a route', text: 'key and not reached' },
  { name: 'Key pages deeper than 3 clicks', text: 'key and depth > 3' },
  { name: 'Key pages with fewer than two pages linking from text', text: 'key and pages_linking_text < 2' },
  { name: 'Key pages with less than an even share', text: 'key and share < 1' },
];
