import { expect, it } from 'vitest';
import type { Placement } from '../links';
import { factAt, pageOf } from '../snapshot';
import { tiny, tinySite } from '../testing/tinySite';

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
