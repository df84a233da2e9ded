import { describe, expect, it } from 'vitest';
import {
  addressAt,
  comparator,
  decodeSnapshot,
  encodeSnapshot,
  factAt,
  factNames,
  groupOfPart,
  incomingLinks,
  pageOf,
  textColumn,
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
    '/later': { unvisited: 'depth', status: null, html: false, title: null },
  },
  ['/c', '/later'],
);
const fact = (path: string, name: (typeof factNames)[number]) => factAt(snapshot, name, pageOf(snapshot, tiny(path)));

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
  it('judges with the end of each chain', () => {
    expect([fact('/old', 'verdict'), fact('/old', 'redirect_hops'), fact('/old', 'verdict_reason')]).toEqual([
      'redirect',
      2,
      `${tiny('/new')} after 2 redirects`,
    ]);
    expect(fact('/spin', 'verdict_reason')).toBe('A loop of 2 redirects.');
    expect(fact('/away', 'verdict_reason')).toBe('https://other.example/x');
    expect(fact('/a', 'verdict')).toBe('noindex');
    expect(fact('/b', 'verdict')).toBe('canonicalised');
    expect(fact('/later', 'verdict')).toBe('unvisited');
  });
  it('keeps unknown apart from nothing', () => {
    expect(fact('/later', 'links_out')).toBeNull();
    expect(fact('/c', 'links_out')).toBe(0);
    expect(fact('/later', 'title')).toBeNull();
  });
  it('finds the links to a page', () => {
    const { offsets, links, source } = incomingLinks(snapshot);
    const page = pageOf(snapshot, tiny('/b'));
    const from = Array.from(links.slice(offsets[page], offsets[page + 1]), (link) => addressAt(snapshot, source[link]));
    expect(from).toEqual([tiny('/'), tiny('/a')]);
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
    expect(decodeSnapshot(new Map(parts))).toEqual(snapshot);
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
    expect(() => opened.links.target).toThrow(/“links\.target” of the snapshot has not been read/);
    for (const [name, bytes] of all) read.set(name, bytes);
    expect(opened.links.target).toEqual(snapshot.links.target);
    expect(opened.phrases).toEqual(snapshot.phrases);
  });
});

describe('order', () => {
  const order = (column: Parameters<typeof comparator>[0], descending: boolean, count: number) =>
    Array.from({ length: count }, (_, page) => page).sort(comparator(column, descending));
  it('puts unknown last in both directions', () => {
    const numbers = Int32Array.from([5, -1, 2]);
    expect(order(numbers, false, 3)).toEqual([2, 0, 1]);
    expect(order(numbers, true, 3)).toEqual([0, 2, 1]);
  });
  it('orders texts by code unit and leaves equals in place', () => {
    const texts = textColumn(['b', null, 'B', 'a', 'b']);
    expect(order(texts, false, 5)).toEqual([2, 3, 0, 4, 1]);
    expect(order(texts, true, 5)).toEqual([0, 4, 3, 2, 1]);
  });
});
