import { describe, expect, it } from 'vitest';
import { settingsSchema } from '../settings';
import { tiny, tinySite } from '../testing/tinySite';
import { sampleOf } from '.';

const settings = settingsSchema.parse({ start: 'https://tiny.example/' });
const paths = Array.from({ length: 40 }, (_, i) => `/gone/${i}`);
const site = tinySite({
  '/': { title: 'Home', worded: paths.map((path): [string, string] => [path, `Tram ${path}`]) },
  ...Object.fromEntries(paths.map((path) => [path, { status: 404, html: false, title: null }])),
});
const draw = (id: string, n: number, seed: number) => sampleOf(site, id, settings, n, seed)!;

describe('a sample of a finding', () => {
  it('is drawn by chance, the same for the same seed, each occurrence once', () => {
    const { all, occurrences } = draw('links_to_broken', 10, 1);
    expect([all, occurrences.length]).toEqual([40, 10]);
    expect(draw('links_to_broken', 10, 1).occurrences).toEqual(occurrences);
    expect(draw('links_to_broken', 10, 2).occurrences).not.toEqual(occurrences);
    const lines = occurrences.map((one) => (one.over === 'links' ? one.line : 0));
    expect(new Set(lines).size).toBe(10);
  });
  it('has what a judge needs to see', () => {
    expect(draw('links_to_broken', 100, 1).occurrences[0]).toEqual({
      over: 'links',
      address: tiny('/'),
      line: 1,
      column: 1,
      target: tiny('/gone/0'),
      fragment: '',
      words: 'Tram /gone/0',
      placement: 'main',
      above: '',
      title: null,
      h1: null,
      reason: { code: 'why_target', verdict: 'broken', reason: { code: 'status', status: 404, tries: 1 } },
    });
    expect(draw('thin', 5, 1).occurrences).toEqual([]);
    expect(draw('no_sitemap', 5, 1).occurrences).toMatchObject([{ over: 'files', address: tiny('/robots.txt') }]);
    expect(draw('no_title', 5, 1).occurrences).toEqual([]);
    expect(draw('crowded', 5, 1).occurrences).toEqual([]);
    expect(draw('no_h1', 5, 1).occurrences).toMatchObject([
      { over: 'pages', address: tiny('/'), facts: { title: 'Home', depth: 0 } },
    ]);
  });
  it('shows nothing that is no finding of the site', () => {
    const listed = tinySite({ '/': { title: 'Home', links: ['/a'] }, '/a': {} }, ['/']);
    expect(sampleOf(listed, 'no_sitemap', settings, 5, 1)).toMatchObject({ all: 0, occurrences: [] });
    expect(sampleOf(listed, 'indexable_not_listed', settings, 5, 1)).toMatchObject({ all: 1 });
    expect(draw('indexable_not_listed', 5, 1)).toMatchObject({ all: 0, occurrences: [] });
  });
  it('is none of what is no finding', () => expect(sampleOf(site, 'nothing', settings, 5, 1)).toBeNull());
});
