/** What a snapshot works out of its pages and links together. */
import { describe, expect, it } from 'vitest';
import { readHtml } from '../html';
import { evenWeights } from '../share';
import { tiny, tinySite } from '../testing/tinySite';
import { factAt, pageOf } from '.';
import type { FactName, Snapshot } from '.';

const at = (snapshot: Snapshot, path: string, name: FactName) => factAt(snapshot, name, pageOf(snapshot, tiny(path)));
const each = (snapshot: Snapshot, name: FactName, paths: string[]) => paths.map((path) => at(snapshot, path, name));

describe('the search crawler', () => {
  const closed = { blockedBy: 'Disallow: /shut (line 2)', status: null, html: false };
  const site = tinySite({
    '/': { links: ['/a', '/quiet', '/shut'] },
    '/a': { links: ['/b'] },
    '/b': {},
    '/quiet': { links: ['/c'], pageNofollow: true },
    '/c': { links: ['/d'] },
    '/d': {},
    '/shut': closed,
  });
  const all = ['/', '/a', '/b', '/quiet', '/c', '/d', '/shut'];
  it('keeps to nofollow and to robots.txt', () => {
    expect(each(site, 'depth', all)).toEqual([0, 1, 2, 1, 2, 3, 1]);
    expect(each(site, 'crawler_depth', all)).toEqual([0, 1, 2, 1, null, null, null]);
  });
  it('says what keeps it from a page', () =>
    expect(each(site, 'held_back', all)).toEqual([null, null, null, null, 'nofollow', 'nofollow', 'robots']));
  it('may need both to give way', () => {
    // Looked past, a closed page has links of its own.
    const past = tinySite({
      '/': { links: ['/shut'], pageNofollow: true },
      '/shut': { blockedBy: 'Disallow: /shut', links: ['/a'] },
      '/a': {},
    });
    expect(each(past, 'held_back', ['/shut', '/a'])).toEqual(['both', 'both']);
  });
});

it('follows canonicals to where they end', () => {
  const site = tinySite({
    '/self': { canonical: '/self' },
    '/none': {},
    '/other': { canonical: '/self' },
    '/chain': { canonical: '/other' },
    '/by-redirect': { canonical: '/moved' },
    '/moved': { status: 301, html: false, redirectTo: '/self' },
    '/loop': { canonical: '/loop2' },
    '/loop2': { canonical: '/loop' },
    '/out': { canonical: 'https://other.example/' },
    '/dead': { canonical: '/gone' },
    '/gone': { status: 404, html: false },
    '/early': { canonical: '/later' },
    '/later': { unvisited: 'limit', status: null, html: false },
  });
  const states = {
    '/self': 'self',
    '/none': null,
    '/other': 'other',
    '/chain': 'chain',
    '/by-redirect': 'chain',
    '/loop': 'loop',
    '/out': 'outside',
    '/dead': 'not_indexable',
    '/early': 'unknown',
  };
  for (const [path, state] of Object.entries(states))
    expect([path, at(site, path, 'canonical_state')]).toEqual([path, state]);
});

it('takes names of sections from patterns, the first that matches', () => {
  const reading = {
    sections: [
      { pattern: '/shop/*?', name: 'Facets' },
      { pattern: '/shop', name: 'Shop' },
    ],
    nearTolerance: 3,
    weights: evenWeights,
  };
  const site = tinySite({ '/': {}, '/shop/': {}, '/shop/mugs?colour=red': {}, '/visit/x': {} }, [], { reading });
  expect(each(site, 'section', ['/', '/shop/', '/shop/mugs?colour=red', '/visit/x'])).toEqual([
    '',
    'Shop',
    'Facets',
    'visit',
  ]);
});

it('knows how large an island is, and what stands behind a gate', () => {
  const site = tinySite({
    '/': { links: ['/a'] },
    '/a': { links: ['/b'] },
    '/b': {},
    '/x': { links: ['/y'] },
    '/y': { links: ['/z'] },
    '/z': {},
  });
  expect(each(site, 'island_size', ['/', '/x', '/y', '/z'])).toEqual([null, 3, 3, 3]);
  expect(each(site, 'gate_for', ['/', '/a', '/b', '/x'])).toEqual([2, 1, 0, null]);
});

describe('near-duplicates', () => {
  const page = (words: string, contentHash: string) => {
    const facts = readHtml(new TextEncoder().encode(`<main>${words}</main>`), tiny('/'));
    const bytes = new DataView(new ArrayBuffer(8));
    facts.fingerprint!.forEach((part, i) => bytes.setUint32(4 * i, part));
    return { words: facts.words, fingerprint: new Uint8Array(bytes.buffer), contentHash };
  };
  const story = Array.from(
    { length: 120 },
    (_, i) => ['tram', 'bus', 'wire', 'hill', 'bell', 'rail'][(i * i + 3 * i) % 6] + String.fromCharCode(97 + (i % 26)),
  ).join(' ');
  const other = Array.from(
    { length: 120 },
    (_, i) => ['menu', 'soup', 'cake', 'tea'][(i * 7) % 4] + String.fromCharCode(97 + ((i * 5) % 26)),
  ).join(' ');
  const site = (nearTolerance: number) =>
    tinySite(
      {
        '/a': page(story, 'a'),
        '/b': page(`${story} 1947`, 'b'),
        '/c': page(other, 'c'),
        '/same': page(story, 'a'),
        '/few': page('tram bus', 'd'),
      },
      [],
      { reading: { sections: [], nearTolerance, weights: evenWeights } },
    );
  it('are told from duplicates and from others', () => {
    expect(each(site(6), 'duplicates', ['/a', '/same', '/b'])).toEqual([1, 1, 0]);
    expect(each(site(6), 'near_duplicates', ['/a', '/b', '/c', '/few'])).toEqual([1, 2, 0, null]);
    expect(each(site(6), 'near_group', ['/a', '/same', '/b', '/c'])).toEqual([1, 1, 1, null]);
  });
});
