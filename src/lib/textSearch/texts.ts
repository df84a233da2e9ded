import { counted, number } from '../shell/words';

export const texts = {
  title: 'Words in all texts',
  words: 'Words that stand together',
  without: 'without a link to',
  withoutExample: 'an address, or nothing',
  find: 'Find',
  about:
    'Finds words in the main content of all pages, in this order. Case does not count, and the last word may go on: “tram” finds trams.',
  unknown: 'The crawl does not know this address.',
  found: (n: number) => (n === 0 ? 'No page has these words.' : `${counted(n, 'page has', 'pages have')} these words.`),
  asList: 'Open as a list',
  noRoute: 'no route',
  depth: (n: number) => `depth ${n}`,
  line: (n: number) => `line ${number(n)}`,
  more: (n: string) => `Show more of the ${n} that are left`,
};
