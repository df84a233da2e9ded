import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { settingsSchema } from '../settings';
import { tiny, TINY_START, tinySite } from '../testing/tinySite';
import { withComparison } from '../view';
import type { TinyPage } from '../testing/tinySite';
import { pageClasses } from '../facts';
import type { PageClass } from '../facts';
import { compareFindings } from '../findings';
import { evaluate, evaluateRows, numbersOf, parseSelection } from '../selection';
import { addressAt, sourcesOf } from '../snapshot';
import {
  addressAfter,
  addressBefore,
  addressMap,
  changeColumn,
  compareLinks,
  comparePages,
  compareSettings,
  factsOf,
  movedTo,
  readMapRules,
} from '.';
import type { Comparison, PairOptions } from '.';

type Site = Record<string, TinyPage>;
/** A page whose main content has some fingerprint. */
const text = (print: number): TinyPage => ({ fingerprint: Buffer.from([0, 0, 0, 1, 0, 0, 0, print]), wordCount: 40 });
const missing: TinyPage = { status: 404, html: false };
const redirect = (to: string): TinyPage => ({ status: 301, html: false, redirectTo: tiny(to) });
const pathOf = (address: string | null) => (address === null ? null : new URL(address).pathname);
const rowsOf = ({ rows }: Comparison) => [...Array(rows).keys()];
const compared = (old: Site, fresh: Site, options: PairOptions = {}) =>
  comparePages(tinySite(old), tinySite(fresh), options);
/** The class of each page by its path, then where it has had one. */
const classes = (old: Site, fresh: Site, options: PairOptions = {}) => {
  const comparison = compared(old, fresh, options);
  return Object.fromEntries(
    rowsOf(comparison).map((row) => [
      pathOf(addressBefore(comparison, row) ?? addressAfter(comparison, row)),
      pageClasses[comparison.change[row]],
    ]),
  );
};
const rowAt = (comparison: Comparison, path: string) =>
  rowsOf(comparison).find((row) => pathOf(addressBefore(comparison, row)) === path)!;

describe('what became of a page', () => {
  const then: Site = {
    '/': { links: ['/a'] },
    '/a': { title: 'Trams' },
    '/left': {},
    '/lost': {},
    '/back': missing,
    '/old': {},
    '/here': { ...text(7), title: 'Buses' },
  };
  const now: Site = {
    '/': { links: ['/a'] },
    '/a': { title: 'Trams and buses' },
    '/lost': missing,
    '/back': {},
    '/old': redirect('/a'),
    '/there': { ...text(7), title: 'Buses' },
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
    }));
  it('has where it moved to, and each fact before and after', () => {
    const comparison = compared(then, now);
    const at = (path: string) => pathOf(movedTo(comparison, rowAt(comparison, path)));
    expect([at('/here'), at('/old')]).toEqual(['/there', '/a']);
    expect(factsOf(comparison, 'title', rowAt(comparison, '/a'))).toEqual({
      ...{ before: 'Trams', after: 'Trams and buses' },
    });
  });
  it('is found under another host, and in another folder', () => {
    const map = (address: string) => address.replace('//tiny.', '//www.tiny.');
    const same = compared(then, then, { map });
    expect(
      rowsOf(same).every((row) => addressBefore(same, row)!.startsWith('https://www.') && same.change[row] === 6),
    ).toBe(true);
    const { rules } = readMapRules('tiny.example/news/=tiny.example/press/');
    expect(
      classes({ '/': {}, '/news/1': {} }, { '/': {}, '/press/1': { title: '/news/1' } }, { map: addressMap(rules) }),
    ).toEqual({ '/': 'same', '/press/1': 'same' });
  });
  it('is found by redirect and by canonical where that is asked for', () => {
    const before: Site = { '/': {}, '/old': { title: 'Trams' }, '/copy': { title: 'Buses' } };
    const after: Site = {
      '/': {},
      '/old': redirect('/new'),
      '/new': { title: 'Trams' },
      '/b': { title: 'Buses', canonical: '/copy' },
    };
    const at = (by: PairOptions['by']) => {
      const comparison = compared(before, after, { by });
      return rowsOf(comparison).map((row) => [
        pathOf(addressBefore(comparison, row)),
        pathOf(addressAfter(comparison, row)),
      ]);
    };
    expect(at([])).toContainEqual([null, '/new']);
    expect(at(['redirect'])).toContainEqual(['/old', '/new']);
    expect(at([])).toContainEqual([null, '/b']);
    expect(at(['canonical'])).toContainEqual(['/copy', '/b']);
  });

  const page: fc.Arbitrary<TinyPage> = fc.oneof(
    fc.record({
      title: fc.constantFrom('A', 'B'),
      fingerprint: fc.constantFrom(1, 2, 3, 4).map((print) => text(print).fingerprint!),
      wordCount: fc.constant(40),
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
        const comparison = comparePages(snapshot, snapshot);
        expect([...comparison.change].every((change) => pageClasses[change] === 'same')).toBe(true);
        expect(comparison.rows).toBe(snapshot.count);
        const { added, removed } = compareLinks(comparison);
        expect(added.length + removed.length).toBe(0);
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
        const told = (one: Comparison, isBack: boolean) =>
          new Map(
            rowsOf(one).map((row) => {
              const pair = [addressBefore(one, row), addressAfter(one, row)];
              return [(isBack ? pair.reverse() : pair).join(' '), pageClasses[one.change[row]]] as const;
            }),
          );
        const [there, back] = [compared(a, b), compared(b, a)];
        const [before, after] = [told(there, false), told(back, true)];
        expect([...before.keys()].sort()).toEqual([...after.keys()].sort());
        for (const [pair, change] of before) expect(mirror[change]).toContain(after.get(pair));
        const links = [compareLinks(there), compareLinks(back)];
        expect([links[0].added.length, links[0].removed.length]).toEqual([
          links[1].removed.length,
          links[1].added.length,
        ]);
      }),
    );
  });
});

it('a folder counts as another as a whole, and is not the beginning of a name', () => {
  const map = addressMap(readMapRules('a.example/news=a.example/press').rules);
  expect(
    ['/news', '/news/1', '/news?p=2', '/newsletter', '/newsletter/1'].map((path) => map(`https://a.example${path}`)),
  ).toEqual(
    ['/press', '/press/1', '/press?p=2', '/newsletter', '/newsletter/1'].map((path) => `https://a.example${path}`),
  );
});

describe('links that came and went', () => {
  const footer = (...more: [string, string, 'footer'][]): TinyPage => ({
    worded: [['/press', 'Press', 'footer'], ...more],
  });
  const then = tinySite({ '/': footer(), '/a': footer(), '/press': {} });
  const now = tinySite({ '/': { worded: [['/a', 'Trams', 'main']] }, '/a': {}, '/press': {} });
  it('are folded into the edits that made them', () => {
    const { added, removed, editOfAdded, editOfRemoved, edits } = compareLinks(comparePages(then, now));
    const told = (links: Uint32Array, of: typeof then) =>
      [...links].map((link) => [
        pathOf(addressAt(of, sourcesOf(of)[link])),
        pathOf(addressAt(of, of.links.target[link])),
      ]);
    expect(told(removed, then)).toEqual([
      ['/', '/press'],
      ['/a', '/press'],
    ]);
    expect(told(added, now)).toEqual([['/', '/a']]);
    expect([[...editOfRemoved], [...editOfAdded], edits]).toEqual([[0, 0], [1], 2]);
  });
  const links: fc.Arbitrary<string[]> = fc.array(fc.constantFrom('/', '/a', '/press'), { maxLength: 6 });
  it('are as many as differ, whatever their order', () =>
    fc.assert(
      fc.property(links, links, (before, after) => {
        const site = (of: string[]) => tinySite({ '/': { links: of }, '/a': {}, '/press': {} });
        const { added, removed } = compareLinks(comparePages(site(before), site(after)));
        const counts = (of: string[], path: string) => of.filter((one) => one === path).length;
        const gain = ['/', '/a', '/press'].map((path) => counts(after, path) - counts(before, path));
        expect(added.length).toBe(gain.reduce((sum, n) => sum + Math.max(0, n), 0));
        expect(removed.length).toBe(gain.reduce((sum, n) => sum - Math.min(0, n), 0));
      }),
    ));
});

describe('selections across crawls', () => {
  const then = tinySite({ '/': { links: ['/a', '/b'] }, '/a': { title: 'Trams' }, '/b': {}, '/left': {} });
  const now = tinySite({
    '/': { links: ['/a'] },
    '/a': { title: 'Buses', noindex: true },
    '/b': missing,
    '/fresh': {},
  });
  const comparison = comparePages(then, now);
  const beside = withComparison(now, comparison);
  const rows = (text: string) => {
    const parsed = parseSelection(text);
    if (!parsed.ok) throw new Error(parsed.fault.message);
    const pages = [...numbersOf(evaluate(beside, parsed.selection))];
    const all = [...numbersOf(evaluateRows(beside, parsed.selection))];
    // The pages of the new crawl are the first rows.
    expect(all.filter((row) => row < now.count)).toEqual(pages);
    return all.map((row) => pathOf(addressBefore(comparison, row) ?? addressAfter(comparison, row)));
  };
  it.each([
    ['new', ['/fresh']],
    ['gone', ['/b']],
    ['removed', ['/left']],
    ['changed(title)', ['/a']],
    ['was (verdict = indexable) and not verdict = indexable', ['/a', '/b', '/left']],
    ['was (linked from (url ends ".example/"))', ['/a', '/b']],
    ['share_change < -0.5', ['/b']],
    ['changed_facts has title', ['/a']],
    ['change in (removed, gone)', ['/b', '/left']],
    ['verdict is unknown', ['/left']],
    ['depth_change is unknown', ['/b', '/fresh', '/left']],
  ])('%s', (text, expected) => expect(rows(text)).toEqual(expected));
  it('need an earlier crawl, and a fact that is compared', () => {
    const parsed = parseSelection('was (new)');
    expect(() => parsed.ok && evaluate(now, parsed.selection)).toThrow('no earlier crawl');
    expect(parseSelection('changed(host)')).toMatchObject({ ok: false, fault: { at: 8 } });
  });
  it('know the differences of numbers, and nothing where one is unknown', () => {
    const { numbers } = changeColumn(comparison, 'links_out_change') as { numbers: Float64Array };
    expect(Object.fromEntries([...numbers].map((n, row) => [pathOf(addressBefore(comparison, row)), n]))).toMatchObject(
      { '/': -1, '/a': 0, '/left': NaN },
    );
  });
});

describe('findings', () => {
  const options = settingsSchema.parse({ start: TINY_START });
  it('are new, solved, still there, or gone with their page', () => {
    const then = tinySite({ '/': { title: 'Home' }, '/a': { title: '' }, '/b': { title: '' }, '/c': { title: '' } });
    const now = tinySite({ '/': { title: '' }, '/a': { title: '' }, '/b': { title: 'Buses' }, '/c': missing });
    const found = compareFindings(comparePages(then, now), [options, options]);
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
  ).toEqual([{ name: 'limit', before: 5000, after: 100, against: 'known' }]));
