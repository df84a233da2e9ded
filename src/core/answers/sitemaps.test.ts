import { describe, expect, it } from 'vitest';
import type { Message } from '../messages';
import type { FetchedSitemap } from '../snapshot';
import { sitemapRows } from '.';

const origin = 'https://www.larkfield.example';
const file = (path: string, rest: Partial<FetchedSitemap> = {}): FetchedSitemap => ({
  address: origin + path,
  entries: 3,
  skipped: 0,
  isFeed: false,
  fault: null,
  faultLine: null,
  index: null,
  answer: null,
  ...rest,
});
const rows = (sitemaps: FetchedSitemap[], body = '', given: string[] = []) =>
  sitemapRows(
    { files: { robots: [{ origin, status: 200, fault: null, body, answer: null }], sitemaps } },
    { given, token: 'edgemap' },
  );

describe('the sitemaps of a crawl', () => {
  it('say where they were found', () => {
    const robots = `User-agent: *\nSitemap: ${origin}/pages.xml\n`;
    const found = rows([file('/pages.xml'), file('/given.xml'), file('/part.xml')], robots, [`${origin}/given.xml`]);
    expect(found.map(({ found, foundLine }) => [found, foundLine])).toEqual([
      ['robots', 2],
      ['given', null],
      ['index', null],
    ]);
    expect(rows([file('/sitemap.xml')])[0].found).toBe('usual');
  });
  const faults: [Message, string][] = [
    [{ code: 'status', status: 404, tries: 1 }, 'missing'],
    [{ code: 'status', status: 403, tries: 1 }, 'refused'],
    [{ code: 'status', status: 503, tries: 3 }, 'failing'],
    [{ code: 'error', error: 'timeout', tries: 3 }, 'unanswered'],
    [{ code: 'not_a_sitemap', root: 'html' }, 'html'],
    [{ code: 'not_well_formed', detail: 'unclosed tag' }, 'xml'],
    [{ code: 'empty_file' }, 'empty'],
    [{ code: 'too_large', megabytes: 100 }, 'large'],
  ];
  it.each(faults)('that could not be read say what to try: %j', (fault, advice) =>
    expect(rows([file('/a.xml', { fault })])[0].advice).toBe(advice),
  );
  it('at fault come first, and what they list outside the site is told', () => {
    const found = rows([file('/a.xml', { skipped: 2 }), file('/b.xml', { fault: { code: 'empty_file' } })]);
    expect(found.map(({ advice }) => advice)).toEqual(['empty', 'outside']);
  });
  it('stand below the index that names them', () => {
    const index = `${origin}/sitemap.xml`;
    const found = rows([
      file('/a.xml', { index }),
      file('/b.xml', { index, fault: { code: 'empty_file' } }),
      file('/news.xml'),
      file('/sitemap.xml'),
    ]);
    expect(found.map(({ address, level }) => [address.slice(origin.length), level])).toEqual([
      ['/news.xml', 0],
      ['/sitemap.xml', 0],
      ['/b.xml', 1],
      ['/a.xml', 1],
    ]);
  });
  const answer = { status: 200, address: `${origin}/a.xml`, redirects: 0, type: 'text/xml', modified: null, age: null };
  it.each([
    ['redirect', { ...answer, redirects: 1 }],
    ['type', { ...answer, type: 'text/html' }],
    ['stale', { ...answer, age: 90_000 }],
    [null, { ...answer, age: 60 }],
  ])('that were read say what is odd about their answer: %s', (advice, given) =>
    expect(rows([file('/a.xml', { answer: given })])[0].advice).toBe(advice),
  );
  it('that robots.txt closes say by which rule', () => {
    const [{ advice, closedBy }] = rows([file('/maps/a.xml')], 'User-agent: *\nDisallow: /maps/');
    expect([advice, closedBy?.line]).toEqual(['blocked', 2]);
  });
});
