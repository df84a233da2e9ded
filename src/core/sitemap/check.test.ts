import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readW3cDate, sitemapChecker } from '.';
import type { CheckOptions } from '.';

const now = Date.UTC(2026, 10, 27);
function check(text: string, options: Partial<CheckOptions> = {}) {
  const checker = sitemapChecker({ address: 'https://www.larkfield.example/sitemap.xml', now, ...options });
  checker.write(text);
  return checker.end();
}
const faultsOf = (text: string, options?: Partial<CheckOptions>) =>
  check(text, options).faults.map(({ line, id }) => [line, id]);
const urlset = (...entries: string[]) =>
  `<?xml version="1.0" encoding="UTF-8"?>\n<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">\n${entries.join('\n')}\n</urlset>`;
const entry = (loc: string, rest = '') => `<url><loc>${loc}</loc>${rest}</url>`;
const home = 'https://www.larkfield.example/';

describe('a sitemap', () => {
  it('without a fault has none, extensions included', () => {
    const text = `<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9" xmlns:image="http://example.org/i" xmlns:xhtml="http://www.w3.org/1999/xhtml">
      <url><loc>${home}</loc><lastmod>2026-10-02</lastmod><changefreq>daily</changefreq><priority>0.8</priority>
        <image:image><image:loc>/relative.jpg</image:loc></image:image>
        <xhtml:link rel="alternate" hreflang="fr" href="${home}fr/"/></url>
      <url><loc>${home}?a=1&amp;b=2</loc></url></urlset>`;
    expect(check(text)).toEqual({ kind: 'urlset', entries: 2, faults: [], children: [] });
  });
  it.each([
    ['a broken tag', urlset('<url><loc>x</url>'), [[3, 'not_well_formed']]],
    ['HTML', '<!doctype html>\n<html><body>Not found</body></html>', [[1, 'not_a_sitemap']]],
    ['nothing', '  \n', [[1, 'not_a_sitemap']]],
    ['a text that lists nothing', 'Hello', [[1, 'not_a_sitemap']]],
    ['no namespace', `<urlset>\n${entry(home)}</urlset>`, [[1, 'wrong_namespace']]],
    [
      'another namespace',
      `<urlset xmlns="http://www.google.com/schemas/sitemap/0.84">${entry(home)}</urlset>`,
      [[1, 'wrong_namespace']],
    ],
    ['another encoding', urlset(entry(home)).replace('UTF-8', 'ISO-8859-1'), [[1, 'not_utf8']]],
    ['an entry without address', urlset('<url>', '<lastmod>2026-01-01</lastmod></url>'), [[3, 'missing_loc']]],
    [
      'a bare ampersand',
      urlset(entry(`${home}?a=1&b=2`), entry(`${home}?c&d;`)),
      [
        [3, 'not_escaped'],
        [4, 'not_well_formed'],
      ],
    ],
    ['an empty address', urlset('<url>', '<loc> </loc></url>'), [[4, 'missing_loc']]],
    ['a relative address', urlset(entry(home), entry('/visit')), [[4, 'relative_loc']]],
    ['a long address', urlset(entry(`${home}${'x'.repeat(2048)}`)), [[3, 'loc_too_long']]],
    [
      'characters that are not escaped',
      urlset(entry(`${home}café`), entry(`${home}a b`)),
      [
        [3, 'not_escaped'],
        [4, 'not_escaped'],
      ],
    ],
    ['another host', urlset(entry('https://shop.larkfield.example/a')), [[3, 'other_host']]],
    ['another protocol', urlset(entry('http://www.larkfield.example/a')), [[3, 'other_host']]],
    ['a bad date', urlset(entry(home, '\n<lastmod>02.10.2026</lastmod>')), [[4, 'bad_lastmod']]],
    ['a date in the future', urlset(entry(home, '<lastmod>2027-01-01</lastmod>')), [[3, 'future_lastmod']]],
    ['a bad priority', urlset(entry(home, '<priority>1.5</priority>')), [[3, 'bad_priority']]],
    ['a bad changefreq', urlset(entry(home, '<changefreq>often</changefreq>')), [[3, 'bad_changefreq']]],
    ['an address twice', urlset(entry(home), entry(home)), [[4, 'duplicate_loc']]],
    [
      'an entity of its own',
      `<!DOCTYPE u [<!ENTITY a "b">]>\n${urlset(entry(`${home}&a;`)).slice(39)}`,
      [[3, 'not_well_formed']],
    ],
  ])('with %s', (_, text, faults) => expect(faultsOf(text)).toEqual(faults));
  it('names the line of an element whose tag is broken over lines', () =>
    expect(faultsOf(urlset('<url>', '<loc\n>/a</loc></url>'))).toEqual([[4, 'relative_loc']]));
  it('may list only what is in its folder, where its address is known', () => {
    const address = `${home}shop/sitemap.xml`;
    expect(faultsOf(urlset(entry(`${home}shop/a`), entry(`${home}visit`)), { address })).toEqual([
      [4, 'outside_folder'],
    ]);
    expect(faultsOf(urlset(entry('https://elsewhere.example/a')), { address: null })).toEqual([]);
  });
  it('has 50,000 entries at most', () => {
    const many = (n: number) => urlset(...Array.from({ length: n }, (_, i) => entry(`${home}${i}`)));
    expect(faultsOf(many(50_000))).toEqual([]);
    expect(faultsOf(many(50_001))).toEqual([[50_003, 'too_many_urls']]);
  });
  it('has 50 MiB at most, uncompressed', () => {
    const checker = sitemapChecker({ address: `${home}sitemap.xml`, now });
    checker.write(urlset(entry(home)));
    checker.size(51 * 1024 * 1024);
    expect(checker.end().faults.map(({ line, id }) => [line, id])).toEqual([[1, 'too_large']]);
  });
  it('names its sitemaps when it is an index, and may not be named by one then', () => {
    const index = `<sitemapindex xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">\n<sitemap><loc>${home}a.xml</loc></sitemap></sitemapindex>`;
    expect(check(index)).toMatchObject({ kind: 'index', children: [`${home}a.xml`], faults: [] });
    expect(faultsOf(index, { inIndex: true })).toEqual([[1, 'nested_index']]);
  });
  it('may be a text or a feed', () => {
    expect(check(`${home}a\r\n${home}b\r\n/c`)).toMatchObject({
      kind: 'text',
      entries: 3,
      faults: [{ line: 3, id: 'relative_loc' }],
    });
    expect(
      check(`<feed xmlns="http://www.w3.org/2005/Atom"><entry><link href="${home}a"/></entry></feed>`),
    ).toMatchObject({ kind: 'feed', entries: 1, faults: [] });
    expect(check(`<rss><channel><item><link>${home}a</link></item></channel></rss>`)).toMatchObject({
      kind: 'feed',
      entries: 1,
      faults: [],
    });
  });
  it('is told alike however it is cut', () => {
    const text = urlset(entry(home), entry('/a'), entry(home, '<priority>9</priority>'));
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), (size) => {
        const checker = sitemapChecker({ address: `${home}s.xml`, now });
        for (let at = 0; at < text.length; at += size) checker.write(text.slice(at, at + size));
        expect(checker.end()).toEqual(check(text, { address: `${home}s.xml` }));
      }),
    );
  });
  it('is told alike however it is cut, whatever is in it', () => {
    const parts = fc.constantFrom(
      ...['<url>', '</url>', '<url>\n', '\r\n', '\n  ', ' ', '<!--', '-->', '<![CDATA[', ']]>', '</urlset>'],
      ...['<loc>', '</loc>', '<loc>/a</loc>', `<loc>${home}a?b=1&amp;c=2</loc>`, `<loc>${home}b</loc>`, '&amp;', '&'],
      ...['<lastmod>2026-10-02</lastmod>', '<lastmod>soon</lastmod>', '<priority>9</priority>', '<x:y/>', 'é'],
      ...[entry(`${home}c`), `\n${entry(`${home}d`)}`, `\r\n${entry('/e')}\n`, entry(home, '\n<priority>9</priority>')],
    );
    const root = fc.constantFrom(
      '<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">',
      '<s:urlset xmlns:s="http://www.sitemaps.org/schemas/sitemap/0.9">',
      `<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">${entry(home)}`,
      `<sitemapindex xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">`,
    );
    fc.assert(
      fc.property(root, fc.array(parts), fc.integer({ min: 1, max: 200 }), (begin, within, size) => {
        const text = `${begin}${within.join('')}</urlset>`;
        const cut = (most: number) => {
          const checker = sitemapChecker({ address: null, now });
          for (let at = 0; at < text.length; at += most) checker.write(text.slice(at, at + most));
          const { faults, ...rest } = checker.end();
          // In how much of a text the parser finds it outside of the root depends on how much it is given.
          return {
            ...rest,
            faults: faults.map(({ id, ...at }) => (id === 'not_well_formed' ? { id } : { id, ...at })),
          };
        };
        const byCharacter = cut(1);
        expect(cut(size)).toEqual(byCharacter);
        expect(cut(text.length)).toEqual(byCharacter);
      }),
      { numRuns: 500 },
    );
  });
  it('never makes the checker fail', () => fc.assert(fc.property(fc.string(), (text) => void check(text))));
});

describe('W3C dates', () => {
  it.each([
    '2026',
    '2026-10',
    '2026-10-02',
    '2026-10-02T09:30Z',
    '2026-10-02T09:30:05+02:00',
    '2026-10-02T09:30:05.45-11:30',
    '2024-02-29',
  ])('%s is one', (text) => expect(readW3cDate(text)).not.toBeNull());
  it.each([
    '',
    '26',
    '2026-13',
    '2026-00-10',
    '2026-02-30',
    '2025-02-29',
    '02.10.2026',
    '2026-10-02T09:30',
    '2026-10-02 09:30:05Z',
    '2026-10-02T24:00Z',
    '2026-10-02T09:60Z',
    '2026-1-2',
    '2026-10-02T09:30:05+0200',
    '20261002',
  ])('“%s” is none', (text) => expect(readW3cDate(text)).toBeNull());
  it('are moments', () => expect(readW3cDate('2026-10-02T09:30:05+02:00')).toBe(Date.UTC(2026, 9, 2, 7, 30, 5)));
});
