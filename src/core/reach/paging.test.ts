import { describe, expect, it } from 'vitest';
import { addressAt, factAt } from '../snapshot';
import { tinySite } from '../testing/tinySite';
import type { TinyPage } from '../testing/tinySite';
import type { View } from '../view';

const having = (site: View, name: 'paging' | 'only_paging') =>
  Array.from({ length: site.count }, (_, page) => page)
    .filter((page) => factAt(site, name, page) === true)
    .map((page) => new URL(addressAt(site, page)).pathname + new URL(addressAt(site, page)).search);

/** A list in three parts, whose entries are linked from their part alone. */
function list(part: (n: number) => string, title: (n: number) => string, words: (n: number) => string) {
  const pages: Record<string, TinyPage> = {
    '/': { links: [part(1)] },
    '/a': { title: 'The first tram' },
    '/b': { title: 'The blue lamps' },
    '/c': { title: 'The last bus' },
  };
  ['/a', '/b', '/c'].forEach((entry, i) => {
    const others = [1, 2, 3].filter((n) => n !== i + 1 && Math.abs(n - i - 1) < 2);
    const worded = others.map((n): [string, string] => [part(n), words(n)]);
    pages[part(i + 1)] = { title: title(i + 1), worded: [[entry, entry], ...worded] };
  });
  return tinySite(pages);
}

describe('further pages of a list', () => {
  it.each<[string, (n: number) => string, (n: number) => string, (n: number) => string]>([
    ['in a query, by number', (n) => (n === 1 ? '/news' : `/news?page=${n}`), () => 'Stories', String],
    [
      'in a folder',
      (n) => (n === 1 ? '/news/' : `/news/page/${n}/`),
      (n) => (n === 1 ? 'Stories' : `Stories, page ${n}`),
      String,
    ],
    ['by words alone', (n) => (n === 1 ? '/news' : `/news-${n}`), () => 'Stories', () => 'Older'],
    ['by offset', (n) => (n === 1 ? '/news' : `/news?start=${(n - 1) * 20}`), () => 'Stories', String],
  ])('are told %s, and what is reached only through them', (_, part, title, words) => {
    const site = list(part, title, words);
    expect(having(site, 'only_paging')).toEqual(['/b', '/c']);
    expect(having(site, 'paging')).toEqual([part(2), part(3)]);
    const depths = ['depth', 'depth_without_paging'].map((name) => Array.from(site.column(name as 'depth')));
    expect(depths[0].filter((depth) => depth >= 0)).toHaveLength(site.count);
    expect(depths[1].filter((depth) => depth < 0)).toHaveLength(3);
  });
  it('are not chapters, years or other pages that a number tells apart', () => {
    const chapters = ['Preface', 'Rails', 'Cars'].map((title, i) => ({ title: `${i + 1}. ${title}` }));
    const site = tinySite({
      '/': {
        title: 'Book',
        worded: [
          ['/chapter/1', '1'],
          ['/chapter/2', '2'],
          ['/chapter/3', '3'],
          ['/events/2025', '2025'],
        ],
      },
      '/chapter/1': { ...chapters[0], worded: [['/chapter/2', '2']] },
      '/chapter/2': { ...chapters[1], worded: [['/chapter/3', 'Next']] },
      '/chapter/3': chapters[2],
      '/events/2025': { title: 'Events of 2025', worded: [['/events/2024', '2024']] },
      '/events/2024': { title: 'Events of 2024' },
      '/line-2': { title: 'Line 2' },
      '/v12/manual': { title: 'Manual', declared: [['next', '/v12/manual/rails']] },
      '/v12/manual/rails': { title: 'Manual: rails' },
      '/format': { title: 'Format', worded: [['/format2', 'The format in full']] },
      '/format2': { title: 'Format' },
      '/photographs': { title: 'Photographs', worded: [['/photographs/2', 'Photograph 2']] },
      '/photographs/2': { title: 'Photographs: 2' },
    });
    expect(having(site, 'paging')).toEqual([]);
  });
  it('are passed by no route that is counted without them', () => {
    const site = tinySite({
      '/': {
        title: 'Stories',
        worded: [
          ['/?page=2', '2'],
          ['/hub', 'Hub'],
        ],
      },
      '/?page=2': { title: 'Stories', links: ['/a'] },
      '/hub': { links: ['/more'] },
      '/more': { links: ['/a'] },
      '/a': {},
    });
    const [page] = [Array.from({ length: site.count }, (_, i) => i).find((i) => addressAt(site, i).endsWith('/a'))!];
    expect([factAt(site, 'depth', page), factAt(site, 'depth_without_paging', page)]).toEqual([2, 3]);
    expect(having(site, 'only_paging')).toEqual([]);
  });
});
