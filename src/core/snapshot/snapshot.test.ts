import { describe, expect, it } from 'vitest';
import type { ColumnName } from '../facts';
import {
  addressAt,
  baseBuilder,
  decodeBase,
  decodeSnapshot,
  encodeBase,
  encodeSnapshot,
  factAt,
  groupOfPart,
  nothingFound,
  pageOf,
  pagesOfAddresses,
} from '.';
import { tiny, tinySite } from '../testing/tinySite';

const snapshot = tinySite(
  {
    '/': { links: ['/a', '/b', '/old', 'https://other.example/'] },
    '/a': { links: ['/b', '/a'], noindex: true, robots: 'noindex' },
    '/b': { declared: [['canonical', '/c']], canonical: '/c' },
    '/c': {},
    '/old': { status: 301, html: false, redirectTo: '/older' },
    '/older': { status: 302, html: false, redirectTo: '/new' },
    '/new': { links: ['/'] },
    '/spin': { status: 301, html: false, redirectTo: '/spun' },
    '/spun': { status: 301, html: false, redirectTo: '/spin' },
    '/away': { status: 301, html: false, redirectTo: 'https://other.example/x' },
    '/later': { unvisitedReason: 'depth', status: null, html: false, title: null },
  },
  ['/c', '/later'],
);
const fact = (path: string, name: ColumnName) => factAt(snapshot, name, pageOf(snapshot, tiny(path)));

describe('a snapshot', () => {
  it('numbers pages in the order of their addresses', () => {
    const addresses = Array.from({ length: snapshot.count }, (_, page) => addressAt(snapshot, page));
    expect(addresses).toEqual([...addresses].sort());
    expect(pageOf(snapshot, tiny('/nowhere'))).toBe(-1);
  });
  it('gives depth and reach', () => {
    expect(['/', '/a', '/old', '/older', '/new'].map((path) => fact(path, 'depth'))).toEqual([0, 1, 1, 1, 1]);
    expect(fact('/c', 'depth')).toBeNull();
    expect(fact('/c', 'reach')).toBe('orphan');
  });
  it('says which sources know a page', () => {
    expect(fact('/', 'seen_in')).toEqual(['start', 'links']);
    expect(fact('/c', 'seen_in')).toEqual(['sitemap', 'canonical']);
    expect(fact('/new', 'seen_in')).toEqual(['redirect']);
  });
  it.each([
    ['refresh', ['redirect']],
    ['hreflang', ['hreflang']],
    ['next', ['declared']],
    ['amphtml', ['declared']],
    ['image', []],
  ] as const)('says what a link of the kind %s makes known', (kind, sources) => {
    const site = tinySite({ '/': { declared: [[kind, '/x']] }, '/x': {} });
    expect(factAt(site, 'seen_in', pageOf(site, tiny('/x')))).toEqual(sources);
  });
  it('judges with the end of each chain', () => {
    const redirect = (path: string) =>
      (['verdict', 'redirect_state', 'redirect_hops', 'redirect_end'] as const).map((name) => fact(path, name));
    expect(redirect('/old')).toEqual(['redirect', 'chain', 2, tiny('/new')]);
    expect(redirect('/older')).toEqual(['redirect', 'single', 1, tiny('/new')]);
    expect(redirect('/spin')).toEqual(['redirect', 'loop', 2, null]);
    expect(redirect('/away')).toEqual(['redirect', 'outside', 1, 'https://other.example/x']);
    expect(fact('/a', 'verdict')).toBe('noindex');
    expect(fact('/b', 'verdict')).toBe('canonicalised');
    expect(fact('/later', 'verdict')).toBe('unvisited');
  });
  it('keeps unknown apart from nothing', () => {
    expect(fact('/later', 'links_out')).toBeNull();
    expect(fact('/c', 'links_out')).toBe(0);
    expect(fact('/later', 'title')).toBeNull();
  });
});

describe('the binary form', () => {
  it('gives back the same, also from views into larger memory', () => {
    // What a database driver hands over begins anywhere in a pool.
    const parts = [...encodeSnapshot(snapshot)].map(([name, bytes]): [string, Uint8Array] => {
      const pool = Buffer.alloc(bytes.length + 8, 7);
      pool.set(bytes, 3);
      return [name, pool.subarray(3, 3 + bytes.length)];
    });
    expect(encodeSnapshot(decodeSnapshot(new Map(parts)))).toEqual(encodeSnapshot(snapshot));
  });
  it('gives back every text, in ASCII or not, however many there are', () => {
    const titles = Array.from({ length: 3000 }, (_, i) => (i % 1700 === 99 ? `Straßenbahn ${i} 🚋` : `Tram ${i}`));
    const site = tinySite(Object.fromEntries(titles.map((title, i) => [`/${i}`, { title }])));
    const { column } = decodeSnapshot(encodeSnapshot(site));
    expect(column('title')).toEqual(site.column('title'));
    expect(column('url').values).toEqual(site.column('url').values);
  });
  it('refuses a newer version, and one with a part missing', () => {
    const parts = encodeSnapshot(snapshot);
    const newer = new Map(parts).set('head', new TextEncoder().encode('{"version":99}'));
    expect(() => decodeSnapshot(newer)).toThrow(/version 99/);
    parts.delete('fact.depth');
    expect(() => decodeSnapshot(parts)).toThrow(/lacks its part “fact\.depth”/);
  });
  it('is read by column, and by group of parts', () => {
    const all = encodeSnapshot(snapshot);
    const read = new Map([...all].filter(([name]) => groupOfPart(name) === 'facts'));
    const opened = decodeSnapshot(read, all.keys());
    expect(factAt(opened, 'depth', 0)).toBe(0);
    expect(() => opened.links.target).toThrow(/“links\.offsets” of the snapshot has not been read/);
    for (const [name, bytes] of all) read.set(name, bytes);
    expect(opened.links.target).toEqual(snapshot.links.target);
    expect(opened.phrases).toEqual(snapshot.phrases);
  });
});

describe('a base', () => {
  it('is all that was observed, without anything that was worked out', () => {
    const base = decodeBase(encodeBase(snapshot));
    expect(encodeBase(base)).toEqual(encodeBase(snapshot));
    expect('faults' in base.links).toBe(false);
  });
  it('finds the pages that addresses name in one pass', () => {
    const addresses = ['', 'https://other.example/', tiny('/'), tiny('/b'), tiny('/zzz')];
    expect([...pagesOfAddresses(snapshot, addresses)]).toEqual(addresses.map((address) => pageOf(snapshot, address)));
  });
  it.each([
    [['2026-01-02', '2026-03-04', null], '2026-03-04'],
    [['2026-01-02T23:30:00-05:00', '2026-01-03'], '2026-01-02T23:30:00-05:00'],
    [['2026-05-01T09:00:00+02:00', '2026-05-01T08:00:00Z'], '2026-05-01T08:00:00Z'],
    [['soon', '2026-01-02'], '2026-01-02'],
    [['soon'], 'soon'],
  ])('keeps the newest lastmod of %j', (lastmods, newest) => {
    const listing = (lastmod: string | null) => ({ number: 1, sitemap: 's', line: 1, lastmod });
    const layout = baseBuilder();
    layout.addPage({ number: 1, address: tiny('/'), unvisitedReason: null, linkCount: 0, found: nothingFound });
    const base = layout.layOut().finish({
      starts: [],
      listed: new Set(),
      outside: new Map(),
      checks: new Map(),
      phrases: new Map(),
      listings: lastmods.map(listing),
      files: { robots: [], sitemaps: [] },
    });
    expect(base.column('sitemap_lastmod').values[base.column('sitemap_lastmod').codes[0]]).toBe(newest);
  });
});
