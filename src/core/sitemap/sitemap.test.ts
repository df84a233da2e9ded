import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Message } from '../messages';
import { sitemapReader } from '.';
import type { SitemapEntry } from '.';

function read(...pieces: string[]) {
  const urls: SitemapEntry[] = [];
  const sitemaps: SitemapEntry[] = [];
  const faults: [Message, number][] = [];
  let isFeed = false;
  const reader = sitemapReader({
    onUrl: (entry) => urls.push(entry),
    onSitemap: (entry) => sitemaps.push(entry),
    onFeed: () => (isFeed = true),
    onFault: (fault, line) => faults.push([fault, line]),
  });
  pieces.forEach(reader.write);
  reader.end();
  return { urls, sitemaps, faults, isFeed };
}

const urlset = `<?xml version="1.0" encoding="UTF-8"?>
<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9" xmlns:image="http://example.org/image">
  <url>
    <loc> https://museum.example/?a=1&amp;b=2 </loc>
    <lastmod>2026-10-02</lastmod>
    <image:image><image:loc>https://museum.example/p.jpg</image:loc></image:image>
  </url>
  <url><loc><![CDATA[https://museum.example/trams]]></loc></url>
</urlset>`;

describe('sitemaps', () => {
  it('reads a urlset with lines, and leaves extensions apart', () =>
    expect(read(urlset).urls).toEqual([
      { loc: 'https://museum.example/?a=1&b=2', lastmod: '2026-10-02', line: 4 },
      { loc: 'https://museum.example/trams', lastmod: null, line: 8 },
    ]));
  it('reads the editions that an entry names', () => {
    const entry = `<url><loc>https://museum.example/a</loc>
      <xhtml:link rel="alternate" hreflang="FR" href="https://museum.example/fr/a"/>
      <xhtml:link rel="stylesheet" href="/x.css"/><xhtml:link rel="alternate" href="/no-language"/></url>`;
    expect(read(`<urlset xmlns:xhtml="http://www.w3.org/1999/xhtml">${entry}</urlset>`).urls[0].alternates).toEqual([
      { language: 'fr', address: 'https://museum.example/fr/a' },
    ]);
    const many = '<xhtml:link rel="alternate" hreflang="fr" href="/a"/>'.repeat(5000);
    const [bounded] = read(`<urlset><url><loc>https://museum.example/a</loc>${many}</url></urlset>`).urls;
    expect(bounded.alternates!.length).toBeLessThan(1000);
  });
  it('reads an index', () => {
    const { sitemaps, urls } = read(
      '<sitemapindex><sitemap><loc>https://museum.example/s.xml</loc></sitemap></sitemapindex>',
    );
    expect(sitemaps.map(({ loc }) => loc)).toEqual(['https://museum.example/s.xml']);
    expect(urls).toEqual([]);
  });
  it.each([
    [
      'RSS',
      '<rss><channel><link>https://museum.example/</link><item><link>https://museum.example/a</link></item></channel></rss>',
    ],
    ['RSS 1.0', '<rdf:RDF><channel/><item><link>https://museum.example/a</link></item></rdf:RDF>'],
    [
      'Atom',
      '<feed><link href="/"/><entry><link rel="edit" href="/no"/><link href="https://museum.example/a"/></entry></feed>',
    ],
  ])('reads a feed in %s, and says that it is one', (_, text) => {
    const { urls, faults, isFeed } = read(text);
    expect(urls).toEqual([{ loc: 'https://museum.example/a', lastmod: null, line: 1 }]);
    expect([faults, isFeed]).toEqual([[], true]);
    expect(read(urlset).isFeed).toBe(false);
  });
  it('reads the text form', () =>
    expect(
      read('\uFEFFhttps://museum.example/a\r\n\r\nhttps://museum.example/b').urls.map(({ loc, line }) => [loc, line]),
    ).toEqual([
      ['https://museum.example/a', 1],
      ['https://museum.example/b', 3],
    ]));
  it('gives the same however the file is cut', () =>
    fc.assert(
      fc.property(fc.array(fc.nat(urlset.length), { maxLength: 12 }), (cuts) => {
        const places = [0, ...cuts.sort((a, b) => a - b), urlset.length];
        const pieces = places.slice(1).map((end, i) => urlset.slice(places[i], end));
        expect(read(...pieces)).toEqual(read(urlset));
      }),
    ));
  it('says the same of a fault however the file is cut', () => {
    const faulty = [
      '<urlset><url><loc>x</wrong>',
      'text <urlset/>',
      '<urlset></urlset>tail',
      `<urlset>${'<a>'.repeat(30)}`,
    ];
    fc.assert(
      fc.property(fc.constantFrom(...faulty), fc.integer({ min: 1, max: 9 }), (text, size) => {
        const pieces = Array.from({ length: Math.ceil(text.length / size) }, (_, i) =>
          text.slice(i * size, (i + 1) * size),
        );
        expect(read(...pieces)).toEqual(read(text));
      }),
    );
  });
  it('reads no deeper than any sitemap is, and nothing behind that', () => {
    const deep = `<urlset><url><loc>https://museum.example/a</loc></url>${'<x>'.repeat(200_000)}`;
    const { urls, faults } = read(deep, '<url><loc>https://museum.example/b</loc></url>');
    expect(urls.map(({ loc }) => loc)).toEqual(['https://museum.example/a']);
    expect(faults).toEqual([[{ code: 'nested_too_deep', most: 20 }, 1]]);
  });
  it('stops taking more after a fault that ends it', () => {
    const reader = sitemapReader({ onUrl: () => {}, onSitemap: () => {}, onFault: () => {} });
    const piece = `<urlset>${'<x>'.repeat(50_000)}`;
    expect([reader.write('<urlset>'), reader.write(piece)]).toEqual([true, false]);
  });
  it.each([
    ['one line without end', 'https://museum.example/' + 'x'.repeat(3_000_000), 'not_a_list'],
    ['nothing but spaces', ' '.repeat(3_000_000), 'empty_file'],
  ])('ends at once on %s', (_, text, code) => expect(read(text).faults[0][0]).toMatchObject({ code }));
  it('ends at the first fault of thousands, and at half a character', () => {
    const { faults } = read(`<urlset><u${'&a;'.repeat(1_000_000)}`);
    expect(faults).toHaveLength(1);
    expect(read('<urlset><!-- x --\ud800').faults).toMatchObject([[{ code: 'not_well_formed' }, 1]]);
  });
  it('keeps no more of an address than shows that it is too long', () => {
    const [{ loc }] = read(`<urlset><url><loc>https://museum.example/${'x'.repeat(100_000)}</loc></url></urlset>`).urls;
    expect(loc).toHaveLength(8193);
  });
  it('keeps what came before a fault, and says the line', () => {
    const { urls, faults } = read(
      '<urlset>\n<url><loc>https://museum.example/a</loc></url>\n<url><loc>x</url>\n</urlset>',
    );
    expect(urls.map(({ loc }) => loc)).toEqual(['https://museum.example/a']);
    expect(faults).toHaveLength(1);
    expect(faults[0][1]).toBe(3);
  });
  it.each([
    ['<html><body>Not found</body></html>', { code: 'not_a_sitemap', root: 'html' }],
    ['', { code: 'empty_file' }],
    ['hello', { code: 'not_a_list' }],
    ['<urlset><url>', { code: 'not_well_formed' }],
  ])('says what is wrong with “%s”', (text, fault) => expect(read(text).faults[0][0]).toMatchObject(fault));
  it('never fails on any text', () => fc.assert(fc.property(fc.string(), (text) => void read(text))));
});
