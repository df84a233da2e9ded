import { describe, expect, it } from 'vitest';
import { factAt, pageOf } from '../snapshot';
import { tiny, tinySite } from '../testing/tinySite';
import type { TinyPage } from '../testing/tinySite';

const at = (pages: Record<string, TinyPage>, path: string, ...names: Parameters<typeof factAt>[1][]) => {
  const site = tinySite(pages);
  return names.map((name) => factAt(site, name, pageOf(site, tiny(path))));
};

describe('links from running text', () => {
  it('are those in sentences, counted by occurrence and by page', () =>
    expect(
      at(
        {
          '/': {
            inText: [
              ['/a', 'trams'],
              ['/a', 'old trams'],
            ],
            links: ['/a'],
          },
          '/b': { inText: [['/a', 'a depot']], placed: [['/a', 'body>nav>p']] },
          '/c': {
            worded: [['/a', 'Trams', 'nav']],
            placed: [
              ['/a', 'body>main>ul>li'],
              ['/a', 'body>main>p'],
            ],
          },
          '/a': { inText: [['/a', 'this page']] },
        },
        '/a',
        'text_links_in',
        'pages_linking_text',
        'pages_linking',
      ),
    ).toEqual([3, 2, 3]));
  it('are not what many pages repeat', () => {
    const pages: Record<string, TinyPage> = { '/': { inText: [['/a', 'trams']] }, '/a': {} };
    for (let i = 0; i < 30; i++) pages[`/p${i}`] = { inText: [['/a', 'Ask us']] };
    expect(at(pages, '/a', 'text_links_in', 'pages_linking')).toEqual([1, 31]);
  });
});

it('pages with a link that is followed are counted apart', () =>
  expect(
    at(
      {
        '/': { links: ['/a'], nofollow: ['/a'] },
        '/b': { nofollow: ['/a'] },
        '/c': { links: ['/a'], pageNofollow: true },
        '/a': {},
      },
      '/a',
      'pages_linking',
      'pages_linking_followed',
    ),
  ).toEqual([3, 1]));
