import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placements } from '../links';
import type { Placement } from '../links';
import { factAt, pageOf } from '../snapshot';
import type { Snapshot } from '../snapshot';
import { tiny, tinySite } from '../testing/tinySite';
import type { TinyPage } from '../testing/tinySite';

const facts = ['links_in', 'pages_linking', 'links_out', 'pages_linked', 'external_links'] as const;
const countsOf = (site: Snapshot, path: string) => facts.map((name) => factAt(site, name, pageOf(site, tiny(path))));

describe('link counts', () => {
  it('are of occurrences and of pages, self-links apart', () => {
    const site = tinySite({
      '/': { links: ['/a', '/a', '/', 'https://else.example/'], declared: [['hreflang', '/b']] },
      '/a': {},
      '/b': { links: ['/a'] },
      '/old': { status: 301, html: false, redirectTo: '/a' },
    });
    expect(countsOf(site, '/')).toEqual([0, 0, 3, 1, 1]);
    expect(countsOf(site, '/a')).toEqual([3, 2, 0, 0, 0]);
    expect(countsOf(site, '/b')).toEqual([0, 0, 1, 1, 0]);
    // What a page links to is known only when it was read.
    expect(countsOf(site, '/old')).toEqual([0, 0, null, null, null]);
  });

  it('are those of a slow count', () => {
    const paths = ['/', '/a', '/b', '/c', '/d'];
    const link = fc.tuple(
      fc.constantFrom(...paths, 'https://else.example/'),
      fc.constant('words'),
      fc.constantFrom(...placements),
    );
    fc.assert(
      fc.property(fc.array(fc.array(link, { maxLength: 8 }), { minLength: 5, maxLength: 5 }), (lists) => {
        const site = tinySite(
          Object.fromEntries(paths.map((path, i): [string, TinyPage] => [path, { worded: lists[i] }])),
        );
        const all = lists.flatMap((list, i) => list.map(([to, , at]) => ({ from: paths[i], to, at })));
        const others = all.filter(({ from, to }) => from !== to);
        const inside = others.filter(({ to }) => to.startsWith('/'));
        const different = (list: string[]) => new Set(list).size;
        for (const path of paths) {
          const [to, from] = [inside.filter((one) => one.to === path), others.filter((one) => one.from === path)];
          const ofPage = inside.filter((one) => one.from === path);
          const ofContent = ofPage.filter(({ at }) => at === 'main' || at === 'none');
          expect(countsOf(site, path)).toEqual([
            to.length,
            different(to.map((one) => one.from)),
            from.length,
            different(ofPage.map((one) => one.to)),
            from.length - ofPage.length,
          ]);
          expect(factAt(site, 'content_links', pageOf(site, tiny(path)))).toBe(
            different(ofContent.map((one) => one.to)),
          );
        }
      }),
      { numRuns: 100 },
    );
  });
});

it('counts the pages that the content of a page links to, without what its template links to', () => {
  const paths = Array.from({ length: 25 }, (_, i) => `/p${i}`);
  const link = (to: string, placement?: Placement): [string, string, Placement?] => [to, 'words', placement];
  const site = tinySite({
    // The start links to each page once; every page links to the start from its content, too.
    '/': { worded: paths.map((path) => link(path)) },
    ...Object.fromEntries(
      paths.map((path) => [path, { worded: [link('/'), link('/p1', 'nav'), link('/p2'), link('/p2')] }]),
    ),
    '/p0': { worded: [link('/p1'), link('/p3'), link('/p3'), link('/p0'), link('https://else.example/')] },
    '/gone': { status: 404, html: false },
  });
  const count = (path: string) => factAt(site, 'content_links', pageOf(site, tiny(path)));
  expect(['/', '/p0', '/p5', '/gone'].map(count)).toEqual([24, 2, 0, null]);
});
