import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sitemapChecker, writeSitemaps } from '.';
import type { SitemapPage } from '.';

const base = 'https://www.larkfield.example/';
const page = (path: string, rest: Partial<SitemapPage> = {}): SitemapPage => ({
  address: new URL(path, base).href,
  lastmod: null,
  alternates: [],
  ...rest,
});
function checked(text: string, name: string) {
  const found: [string, string | null][] = [];
  const onEntry = (loc: string, lastmod: string | null) => found.push([loc, lastmod]);
  const checker = sitemapChecker({ address: base + name, now: Date.UTC(2027, 0, 1), onEntry });
  checker.write(text);
  return { ...checker.end(), found };
}

describe('written sitemaps', () => {
  it('have what is known, and no date that nothing shows', () => {
    const [file] = writeSitemaps([page('/?a=1&b=2'), page('/visit', { lastmod: '2026-10-02' })], base);
    const { faults, found } = checked(file.text, file.name);
    expect(faults).toEqual([]);
    expect(found).toEqual([
      [`${base}?a=1&b=2`, null],
      [`${base}visit`, '2026-10-02'],
    ]);
    expect(file.text).not.toContain('priority');
  });
  it('name editions in other languages', () => {
    const alternates = [
      { language: 'en', address: `${base}visit` },
      { language: 'fr', address: `${base}fr/visite` },
    ];
    const [{ text, name }] = writeSitemaps([page('/visit', { alternates })], base, { withAlternates: true });
    expect(text).toContain(`<xhtml:link rel="alternate" hreflang="fr" href="${base}fr/visite"/>`);
    expect(checked(text, name).faults).toEqual([]);
  });
  it('are split at 50,000 entries, with an index', () => {
    const pages = Array.from({ length: 50_001 }, (_, i) => page(`/p/${i}`));
    const files = writeSitemaps(pages, base, { ending: '.gz' });
    expect(files.map(({ name, entries }) => [name, entries])).toEqual([
      ['sitemap.xml.gz', 2],
      ['sitemap-1.xml.gz', 50_000],
      ['sitemap-2.xml.gz', 1],
    ]);
    expect(checked(files[0].text, 'sitemap.xml.gz').children).toEqual([
      `${base}sitemap-1.xml.gz`,
      `${base}sitemap-2.xml.gz`,
    ]);
  });
  it('pass the check, whatever the addresses', () =>
    fc.assert(
      fc.property(fc.uniqueArray(fc.webPath(), { maxLength: 20 }), (paths) => {
        const addresses = [
          ...new Set(paths.map((path) => new URL(path.replace(/^\/+/, '/') || '/', base).href)),
        ].filter((a) => a.startsWith(base));
        const [file] = writeSitemaps(
          addresses.map((address) => page(address)),
          base,
        );
        expect(checked(file.text, file.name).faults).toEqual([]);
      }),
    ));
});
