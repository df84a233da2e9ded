import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { verdicts } from '../facts';
import type { ImportedSource } from '../imports';
import { agreementCsv, listAs, sourcesCsv } from '../formats';
import { columnOf, importColumnName, orderRows, pageList, summaryOf } from '../lists';
import { evaluate, numbersOf, parseSelection } from '../selection';
import { tiny, tinySite } from '../testing/tinySite';
import { addressAt, factAt, pageOf } from '../snapshot';
import { agreementOf, foldersOf, sourceBook, sourceBookOf } from '.';
import { viewOf, withImports } from '../view';

const log = (hits: Record<string, number>, name = 'May'): ImportedSource => {
  const paths = Object.keys(hits).sort();
  const of = (value: (path: string) => number) => Float64Array.from(paths, value);
  return {
    id: 1,
    kind: 'log',
    name,
    addresses: paths.map(tiny),
    columns: {
      hits: of((path) => hits[path]),
      crawler_hits: of(() => 0),
      answered: of((path) => hits[path]),
      last_hit: of(() => Date.UTC(2026, 9, 1) / 1000),
    },
  };
};
const SEEN = Date.UTC(2026, 9, 2, 9, 30) / 1000;
const list = (clicks: Record<string, number>, name = 'Ads'): ImportedSource => {
  const paths = Object.keys(clicks).sort();
  const columns = {
    rows: new Float64Array(paths.length).fill(1),
    clicks: Float64Array.from(paths, (p) => clicks[p]),
    seen_date: new Float64Array(paths.length).fill(SEEN),
  };
  return { id: 2, kind: 'list', name, addresses: paths.map(tiny), columns };
};
const site = () => tinySite({ '/': { links: ['/a'] }, '/a': { links: ['/'] }, '/old/x': {}, '/old/y': {}, '/b': {} });

describe('imports beside a snapshot', () => {
  const snapshot = viewOf(site(), [
    log({ '/a': 4, '/old/x': 9, '/gone': 1 }),
    log({ '/a': 1 }, 'June'),
    list({ '/b': 7 }),
  ]);
  const at = (path: string) => pageOf(snapshot, tiny(path));
  it('are numbered apart for a view with some of them', () => {
    const some = withImports(snapshot, snapshot.imports.slice(-1));
    expect(sourceBookOf(snapshot).names).toEqual(['links', 'sitemap', 'log:May', 'log:June', 'list:Ads']);
    expect(sourceBookOf(some).names).toEqual(['links', 'sitemap', 'list:Ads']);
  });
  it('give their facts to the pages that they name, sums over all logs', () => {
    expect(factAt(snapshot, 'log_hits', at('/a'))).toBe(5);
    expect(factAt(snapshot, 'log_hits', at('/b'))).toBeNull();
    expect(factAt(snapshot, 'list_hits', at('/b'))).toBe(1);
    expect(factAt(snapshot, 'last_hit', at('/old/x'))).toBe('2026-10-01T00:00:00Z');
    expect(factAt(snapshot, 'seen_in', at('/old/x'))).toContain('log');
    expect(factAt(snapshot, 'seen_in', at('/b'))).toContain('list');
  });
  it.each([
    ['log_hits > 4', ['/a', '/old/x']],
    ['seen in log and not reached', ['/old/x']],
    ['log("June")', ['/a']],
    ['list("Ads").clicks > 5', ['/b']],
    ['list("Ads").clicks > 7', []],
    ['list("Ads").seen_date > "2026-10-02"', ['/b']],
    ['list("Ads").seen_date > "2026-10-03"', []],
    ['not log("May") and not list("Ads")', ['/', '/old/y']],
  ])('can be asked for: %s', (text, paths) => {
    const parsed = parseSelection(text);
    if (!parsed.ok) throw new Error(parsed.fault.message);
    const found = [...numbersOf(evaluate(snapshot, parsed.selection))].map((page) => addressAt(snapshot, page));
    expect(found).toEqual(paths.map(tiny));
  });
  it.each([
    ['list("Nobody")', /No list “Nobody” counts for this crawl\. There is “Ads”/],
    ['list("Ads").visits > 1', /no “visits”, but rows, clicks, seen_date/],
  ])('that are not there are told: %s', (text, message) => {
    const parsed = parseSelection(text);
    expect(() => parsed.ok && evaluate(snapshot, parsed.selection)).toThrow(message);
  });
  it.each([
    ['list(', 'quotes'],
    ['list("Ads").', 'name of a number'],
    ['log("May").hits', 'comparison'],
    ['list("Ads").seen_date > 7', 'a date in quotes'],
  ])('are asked for in the right words: %s', (text, expected) =>
    expect(parseSelection(text)).toMatchObject({
      ok: false,
      fault: { message: expect.stringContaining(expected) as string },
    }),
  );
  it('give columns to the list of pages, which sort and name their tests', () => {
    const everything = parseSelection('');
    const pages = pageList(snapshot, evaluate(snapshot, everything.ok ? everything.selection : { op: 'all' }));
    const name = importColumnName('list', 'Ads', 'clicks');
    expect(columnOf('pages', name)).toMatchObject({ label: 'clicks (Ads)', asked: 'list("Ads").clicks' });
    expect(addressAt(snapshot, orderRows(pages, name, true)[0])).toBe(tiny('/b'));
    expect(pages.cells(name).value(at('/b'))).toBe(7);
    expect(pages.cells(name).value(at('/a'))).toBeNull();
    const dated = importColumnName('list', 'Ads', 'seen_date');
    expect(pages.cells(dated).value(at('/b'))).toBe('2026-10-02T09:30:00Z');
    expect(columnOf('pages', dated)).toMatchObject({ type: 'text', label: 'seen date (Ads)' });
    const bins = summaryOf('pages', pages, columnOf('pages', name)!);
    expect(bins).toContainEqual({ label: '7', rows: 1, select: 'list("Ads").clicks = 7' });
    expect([...listAs('csv', pages, [at('/b')], ['url', name])].join('')).toContain('list(""Ads"").clicks');
  });
  it('are written with what each knows', () => {
    const agreement = [...agreementCsv(snapshot)].join('').trim().split('\r\n');
    expect(agreement).toContain('links+log:June+log:May,1,1,5');
    expect(agreement).toContain('log:May,2,1,10');
    expect(agreement).toContain('list:Ads,1,1,0');
    const rows = [...sourcesCsv(snapshot)].join('').trim().split('\r\n');
    expect(rows[0]).toBe('url,verdict,depth,reach,links,sitemap,log:May,log:June,list:Ads');
    expect(rows).toContain(`${tiny('/a')},indexable,1,reached,1,0,4,1,`);
    expect(rows).toContain(`${tiny('/gone')},,,,0,0,1,,`);
  });
});

describe('the agreement of sources', () => {
  const paths = ['/', '/a', '/b', '/old/x', '/old/y', '/new/1', '/new/2'];
  const some = fc.dictionary(fc.constantFrom(...paths), fc.integer({ min: 1, max: 50 }));
  it('counts every address once, and adds up to what each source knows', () =>
    fc.assert(
      fc.property(some, some, some, (a, b, c) => {
        const snapshot = viewOf(site(), [log(a, 'A'), log(b, 'B'), list(c, 'C')]);
        const book = sourceBook(snapshot);
        const rows = agreementOf(book, snapshot.column('verdict'));
        const sizes = [undefined, undefined, a, b, c];
        sizes.forEach((given, source) => {
          const knows = rows.filter(({ sources }) => sources.includes(source)).reduce((n, { urls }) => n + urls, 0);
          if (given) expect(knows).toBe(Object.keys(given).length);
        });
        const hits = [...Object.values(a), ...Object.values(b)].reduce((n, one) => n + one, 0);
        expect(rows.reduce((n, row) => n + row.hits, 0)).toBe(hits);
        for (const row of rows) expect(row.byVerdict.reduce((n, { urls }) => n + urls, 0) + row.unknown).toBe(row.urls);
      }),
    ));
  it('leaves out sources that are not chosen', () => {
    const snapshot = viewOf(site(), [log({ '/a': 1, '/b': 1 }), list({ '/b': 1 })]);
    const rows = agreementOf(sourceBook(snapshot), snapshot.column('verdict'), 0b1000);
    expect(rows).toMatchObject([
      { sources: [3], urls: 1, byVerdict: [{ verdict: verdicts[verdicts.indexOf('indexable')], urls: 1 }] },
    ]);
  });
  it('shows the folder that one of two sources does not know', () => {
    const addresses = ['/a', '/b', '/old/x', '/old/y', '/old/deep/z'].map(tiny);
    const rows = foldersOf(
      addresses.length,
      (at) => addresses[at],
      (source, at) => source === 1 || !addresses[at].includes('/old/'),
    );
    expect(rows[0]).toMatchObject({ path: '/', first: 2, second: 5, both: 2 });
    expect(rows[1]).toMatchObject({ path: '/old/', first: 0, second: 3, both: 0 });
    expect(rows[2]).toMatchObject({ path: '/old/deep/', second: 1 });
  });
});
