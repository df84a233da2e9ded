import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { settingsSchema } from '../settings';
import { tiny, TINY_START, tinySite } from '../testing/tinySite';
import type { TinyPage } from '../testing/tinySite';
import { compareFindings, compareLinks, comparePages, compareSettings, pageClasses } from '.';
import type { PageClass } from '.';

type Site = Record<string, TinyPage>;
const missing: TinyPage = { status: 404, html: false };
const redirect = (to: string): TinyPage => ({ status: 301, html: false, redirectTo: tiny(to) });
const classes = (old: Site, fresh: Site) =>
  Object.fromEntries(
    comparePages(tinySite(old), tinySite(fresh)).map(({ address, change }) => [new URL(address).pathname, change]),
  );

describe('what became of a page', () => {
  const then: Site = {
    '/': { links: ['/a'] },
    '/a': { title: 'Trams' },
    '/left': {},
    '/lost': {},
    '/back': missing,
    '/old': {},
    '/here': { contentHash: 'c1' },
  };
  const now: Site = {
    '/': { links: ['/a'] },
    '/a': { title: 'Trams and buses' },
    '/lost': missing,
    '/back': {},
    '/old': redirect('/a'),
    '/there': { contentHash: 'c1' },
    '/fresh': {},
  };
  it('is one class each', () =>
    expect(classes(then, now)).toEqual({
      '/': 'same',
      '/a': 'changed',
      '/back': 'returned',
      '/fresh': 'added',
      '/here': 'moved',
      '/left': 'removed',
      '/lost': 'gone',
      '/old': 'moved',
      '/there': 'moved',
    }));
  it('has where it moved to, and each fact before and after', () => {
    const pages = comparePages(tinySite(then), tinySite(now));
    const at = (path: string) => pages.find(({ address }) => address === tiny(path))!;
    expect([at('/here').to, at('/old').to, at('/there').to]).toEqual([tiny('/there'), tiny('/a'), null]);
    expect(at('/a').facts).toEqual([{ fact: 'title', before: 'Trams', after: 'Trams and buses' }]);
  });
  it('is found under another host', () => {
    const map = (address: string) => address.replace('//tiny.', '//www.tiny.');
    const pages = comparePages(tinySite(then), tinySite(then), map);
    expect(pages.every(({ address, change }) => address.startsWith('https://www.') && change === 'same')).toBe(true);
  });

  const page: fc.Arbitrary<TinyPage> = fc.oneof(
    fc.record({
      title: fc.constantFrom('A', 'B'),
      contentHash: fc.constantFrom('c1', 'c2', 'c3', 'c4'),
      links: fc.constantFrom<string[]>([], ['/'], ['/a', '/b']),
    }),
    fc.constantFrom(missing, redirect('/'), { status: 503, html: false }),
  );
  const site: fc.Arbitrary<Site> = fc
    .dictionary(fc.constantFrom('/a', '/b', '/c', '/d', '/e'), page)
    .map((pages) => ({ '/': { links: ['/a', '/b', '/c'] }, ...pages }));
  it('from a crawl to itself is nothing', () =>
    fc.assert(
      fc.property(site, (one) => {
        const snapshot = tinySite(one);
        const pages = comparePages(snapshot, snapshot);
        expect(pages.every(({ change }) => change === 'same')).toBe(true);
        expect(compareLinks(snapshot, snapshot, pages)).toEqual([]);
      }),
    ));
  it('from the one to the other mirrors what it is from the other to the one', () => {
    const mirror: Record<PageClass, PageClass[]> = {
      added: ['removed'],
      removed: ['added'],
      gone: ['returned'],
      returned: ['gone', 'moved'],
      moved: ['moved', 'returned'],
      changed: ['changed'],
      same: ['same'],
    };
    fc.assert(
      fc.property(site, site, (a, b) => {
        const [there, back] = [classes(a, b), classes(b, a)];
        expect(Object.keys(there)).toEqual(Object.keys(back));
        for (const [path, change] of Object.entries(there)) {
          expect(pageClasses).toContain(change);
          expect(mirror[change]).toContain(back[path]);
        }
      }),
    );
  });
});

describe('links that came and went', () => {
  const footer = (...more: [string, string, 'footer'][]): TinyPage => ({
    worded: [['/press', 'Press', 'footer'], ...more],
  });
  const then = tinySite({ '/': footer(), '/a': footer(), '/press': {} });
  const now = tinySite({ '/': { worded: [['/a', 'Trams', 'main']] }, '/a': {}, '/press': {} });
  it('are folded into the edits that made them', () => {
    const links = compareLinks(then, now, comparePages(then, now));
    expect(
      links.map(({ change, source, target, anchor, placement, edit }) => [
        change,
        source,
        target,
        anchor,
        placement,
        edit,
      ]),
    ).toEqual([
      ['removed', tiny('/'), tiny('/press'), 'Press', 'footer', 1],
      ['added', tiny('/'), tiny('/a'), 'Trams', 'main', 2],
      ['removed', tiny('/a'), tiny('/press'), 'Press', 'footer', 1],
    ]);
  });
});

describe('findings', () => {
  const options = settingsSchema.parse({ start: TINY_START });
  it('are new, solved, still there, or gone with their page', () => {
    const then = tinySite({ '/': { title: 'Home' }, '/a': { title: '' }, '/b': { title: '' }, '/c': { title: '' } });
    const now = tinySite({ '/': { title: '' }, '/a': { title: '' }, '/b': { title: 'Buses' }, '/c': missing });
    const found = compareFindings(then, now, comparePages(then, now), [options, options]);
    expect(found.find(({ finding }) => finding === 'no_title')).toEqual({
      ...{ finding: 'no_title', new: 1, solved: 1, remaining: 1, gone: 1 },
    });
  });
});

it('settings that differ are told', () =>
  expect(
    compareSettings(
      settingsSchema.parse({ start: TINY_START, limit: 5000 }),
      settingsSchema.parse({ start: TINY_START, limit: 100 }),
    ),
  ).toEqual([{ name: 'limit', before: 5000, after: 100 }]));
