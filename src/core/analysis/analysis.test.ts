/** What an analysis works out of pages and links together. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readHtml } from '../html';
import { walkOf } from '../reach';
import { tiny, tinyBase, tinySettings, tinySite } from '../testing/tinySite';
import type { TinyPage } from '../testing/tinySite';
import type { ColumnName } from '../facts';
import { linkFields } from '../links';
import type { LinkFieldName, LinkKind } from '../links';
import { derivedFacts } from '../facts';
import { encodeSnapshot, factAt, pageOf, partNames, withLayer } from '../snapshot';
import type { Base, ColumnReader, Layer, Snapshot } from '../snapshot';
import { derivations, isColumnGiven } from './derivations';
import type { Context, Interim } from './derivations';
import { analyse, analyseWith, derivationsAfter } from '.';
import type { Input } from '.';

const at = (snapshot: Snapshot, path: string, name: ColumnName) => factAt(snapshot, name, pageOf(snapshot, tiny(path)));
const each = (snapshot: Snapshot, name: ColumnName, paths: string[]) => paths.map((path) => at(snapshot, path, name));

describe('the search crawler', () => {
  const closed: TinyPage = {
    robotsRule: { line: 2, directive: 'disallow', path: '/shut', group: '*' },
    status: null,
    html: false,
  };
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
      '/shut': { robotsRule: closed.robotsRule, links: ['/a'] },
      '/a': {},
    });
    expect(each(past, 'held_back', ['/shut', '/a'])).toEqual(['both', 'both']);
  });
  it('has the depths of its own graph, whether or not anything is withheld', () => {
    const paths = ['/', '/a', '/b', '/c', '/d'];
    const path = fc.constantFrom(...paths);
    const page = fc.record({
      links: fc.array(path, { maxLength: 3 }),
      nofollow: fc.oneof({ weight: 4, arbitrary: fc.constant<string[]>([]) }, fc.array(path, { maxLength: 1 })),
      pageNofollow: fc.integer({ min: 0, max: 9 }).map((n) => n === 0),
      isClosed: fc.integer({ min: 0, max: 9 }).map((n) => n === 0),
    });
    fc.assert(
      fc.property(fc.array(page, { minLength: paths.length, maxLength: paths.length }), (pages) => {
        const made = pages.map(({ isClosed, ...open }, i) => [paths[i], isClosed ? closed : open] as const);
        const random = tinySite(Object.fromEntries(made));
        expect(random.column('crawler_depth')).toEqual(walkOf(random, 'crawler').depths.depth);
      }),
    );
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
    '/later': { unvisitedReason: 'limit', status: null, html: false },
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
  const settings = {
    sections: [
      { pattern: '/shop/*?', name: 'Facets' },
      { pattern: '/shop', name: 'Shop' },
    ],
  };
  const site = tinySite({ '/': {}, '/shop/': {}, '/shop/mugs?colour=red': {}, '/visit/x': {} }, [], { settings });
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
    return { wordCount: facts.wordCount, fingerprint: new Uint8Array(bytes.buffer), contentHash };
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
      { settings: { nearTolerance } },
    );
  it('are told from duplicates and from others', () => {
    expect(each(site(6), 'duplicates', ['/a', '/same', '/b'])).toEqual([1, 1, 0]);
    expect(each(site(6), 'near_duplicates', ['/a', '/b', '/c', '/few'])).toEqual([1, 2, 0, null]);
    expect(each(site(6), 'near_group', ['/a', '/same', '/b', '/c'])).toEqual([1, 1, 1, null]);
  });
});

describe('the table of derivations', () => {
  const pages = {
    '/': { worded: [['/a', 'A'] as [string, string], ['/old', 'Old'] as [string, string]], links: ['/b'] },
    '/a': { links: ['/', '/b'], contentHash: 'x', wordCount: 40, fingerprint: Uint8Array.of(1, 2, 3, 4, 5, 6, 7, 8) },
    '/b': {
      canonical: '/a',
      contentHash: 'x',
      pageNofollow: true,
      links: ['/c'],
      declared: [['hreflang', '/c'] as [LinkKind, string]],
    },
    '/c': { noindex: true },
    '/old': { status: 301, html: false, redirectTo: '/a' },
    '/lost': {},
  };
  const base = tinyBase(pages, ['/lost']);
  const same = (a: Snapshot, b: Snapshot) => expect(encodeSnapshot(a)).toEqual(encodeSnapshot(b));

  it('gives every derived fact once', () =>
    expect(derivations.flatMap(({ gives }) => gives.filter(isColumnGiven)).sort()).toEqual([...derivedFacts].sort()));

  it.each(derivations.map((derivation) => [derivation.name, derivation] as const))(
    '%s reads what it says it reads, and no more',
    (_, derivation) => {
      const read = new Set<string>();
      const watched = <T extends object>(object: T, names: (key: string) => Iterable<string>): T =>
        new Proxy(object, {
          get: (target, key) => {
            if (typeof key === 'string') for (const name of names(key)) read.add(name);
            return Reflect.get(target, key) as unknown;
          },
        });
      const { column, links, count, ...parts } = analyse(base, tinySettings);
      const watchedLinks = watched(links, (key) => [
        key === 'offsets' ? 'targets' : linkFields[key as LinkFieldName].input,
      ]);
      const model = {
        ...watched(parts, () => []),
        count,
        column: ((name) => column((read.add(name), name))) as ColumnReader,
        get links() {
          return watchedLinks;
        },
      };
      const named = new Set<string>(partNames);
      derivation.run(
        watched(model, (key) => (named.has(key) ? [key] : [])),
        watched({ ...interim(base), settings: watched(tinySettings, (key) => [`settings.${key}`]) }, (key) =>
          key === 'settings' ? [] : [key],
        ),
      );
      expect([...read].filter((name) => !derivation.reads.includes(name as Input))).toEqual([]);
      expect(derivation.reads.filter((name) => !read.has(name))).toEqual([]);
    },
  );

  it('is in an order in which everything is there when it is read', () => {
    const given = new Set<string>();
    for (const { reads, gives } of derivations) {
      const later = derivations.flatMap((other) => other.gives).filter((name) => !given.has(name));
      expect(reads.filter((name) => (later as string[]).includes(name))).toEqual([]);
      for (const name of gives) given.add(name);
    }
  });

  const site = analyse(base, tinySettings);
  const kinds = site.links.kind.map((kind, link) => (link === 0 ? 4 : kind));
  const layers: [string, Layer][] = [
    ['a noindex', { columns: { noindex: () => site.column('noindex').map(() => 0) } }],
    ['another start', { starts: () => [1] }],
    ['a list', { listed: () => [0, 1] }],
    ['links of another kind', { links: () => ({ ...site.links, kind: kinds }) }],
    ['other words', { phrases: () => site.phrases.map((text) => text && 'read more') }],
  ];
  it.each(layers)('follows %s as a whole analysis would', (_, layer) => {
    same(analyseWith(site, layer, tinySettings), analyse(withLayer(site, layer), tinySettings));
  });
  it('leaves depth alone where only words change', () => {
    const steps = derivationsAfter(['words']).map(({ name }) => name);
    expect(steps).toContain('anchors');
    for (const name of ['depth', 'reach', 'gates', 'share', 'link counts']) expect(steps).not.toContain(name);
  });
  it('works out again only what an edit touches', () => {
    const touched = derivationsAfter(['noindex']).map(({ name }) => name);
    expect(touched).toContain('verdicts');
    for (const name of ['reach', 'gates', 'link counts', 'templates']) expect(touched).not.toContain(name);
    expect(derivationsAfter([])).toEqual([]);
  });
  it('says how far it is', () => {
    const told: string[] = [];
    analyse(base, tinySettings, (step, done, of) => told.push(`${step} ${done}/${of}`));
    expect(told).toHaveLength(derivations.length);
    expect(told[0]).toBe(`addresses 0/${derivations.length}`);
  });

  /** What is not kept after an analysis. */
  function interim(of: Base): Interim {
    const context = { settings: tinySettings } as Context;
    const model = analyse(of, tinySettings);
    for (const derivation of derivations) {
      const given = derivation.run(model, context);
      for (const name of derivation.gives) if (!isColumnGiven(name)) Object.assign(context, { [name]: given[name] });
    }
    return context;
  }
});
