import fc from 'fast-check';
import { expect, it } from 'vitest';
import { columnOfSource, firstColumn, unknownOf } from '.';
import type { ImportedSource, ImportKind } from '.';
import { sources } from '../facts';
import { pageOf, pagesOfAddresses, textAt } from '../snapshot';
import { tiny, tinySite } from '../testing/tinySite';
import { viewOf } from '../view';

const site = tinySite({ '/': { links: ['/trams'] }, '/trams': {}, '/trams/horse': {}, '/visit?day=1': {} });
const paths = ['/', '/trams', '/trams/horse', '/visit?day=1'];

type Row = Record<string, number>;
/** An imported source of paths, each with its numbers. */
function source(kind: ImportKind, name: string, rows: Record<string, Row>): ImportedSource {
  const sorted = Object.entries(rows).sort(([a], [b]) => (tiny(a) < tiny(b) ? -1 : 1));
  const names = [...new Set(sorted.flatMap(([, row]) => Object.keys(row)))];
  return {
    id: 1,
    kind,
    name,
    addresses: sorted.map(([path]) => tiny(path)),
    columns: Object.fromEntries(
      names.map((column) => [column, Float64Array.from(sorted, ([, row]) => row[column] ?? NaN)]),
    ),
  };
}
const hits = (count: number, answered: number, at: string, crawler = 0): Row => ({
  hits: count,
  crawler_hits: crawler,
  answered,
  last_hit: Date.parse(at) / 1000,
});

it('finds the pages that a source names, and those that it does not know', () =>
  fc.assert(
    fc.property(fc.uniqueArray(fc.constantFrom(...paths, '/a', '/trams/', '/trams/horse/1', '/zoo')), (named) => {
      const addresses = named.map(tiny).sort();
      const known = paths.map(tiny);
      expect([...pagesOfAddresses(site, addresses)]).toEqual(
        addresses.map((address) => (known.includes(address) ? pageOf(site, address) : -1)),
      );
    }),
  ));

it('adds logs up and keeps the latest hit; a list counts apart', () => {
  const both = viewOf(site, [
    source('log', 'May', { '/trams': hits(3, 3, '2026-05-02T10:00:00Z', 1), '/': hits(5, 5, '2026-05-09T00:00:00Z') }),
    source('log', 'June', { '/trams': hits(4, 0, '2026-06-01T08:30:00Z', 2) }),
    source('log', 'Wrong clock', { '/': hits(1, 1, '2040-01-01T00:00:00Z') }),
    source('list', 'Campaigns', { '/trams': { rows: 2, clicks: 70 } }),
  ]);
  const trams = pageOf(site, tiny('/trams'));
  const logHits = both.column('log_hits');
  const crawlerHits = both.column('crawler_hits');
  const listHits = both.column('list_hits');
  expect([logHits[trams], crawlerHits[trams], listHits[trams]]).toEqual([7, 3, 2]);
  expect(textAt(both, 'last_hit', trams)).toBe('2026-06-01T08:30:00Z');
  expect(textAt(both, 'last_hit', pageOf(site, tiny('/')))).toBe('2040-01-01T00:00:00Z');
  const horse = pageOf(site, tiny('/trams/horse'));
  expect([logHits[horse], listHits[horse], textAt(both, 'last_hit', horse)]).toEqual([-1, -1, null]);
});

it('says of each page which sources know it, and leaves the snapshot as it was', () => {
  const before = [...site.column('seen_in')];
  const both = viewOf(site, [
    source('log', 'May', { '/visit?day=1': hits(1, 1, '2026-05-02T10:00:00Z') }),
    source('list', 'Campaigns', { '/': { rows: 1 }, '/gone': { rows: 1 } }),
  ]);
  const bit = (kind: ImportKind) => 1 << sources.indexOf(kind);
  const seen = (path: string) => both.column('seen_in')[pageOf(site, tiny(path))];
  expect(seen('/visit?day=1')).toBe(bit('log'));
  expect(seen('/') & bit('list')).toBe(bit('list'));
  expect(seen('/trams')).toBe(before[pageOf(site, tiny('/trams'))]);
  expect([...site.column('seen_in')]).toEqual(before);
});

it('tells addresses that answered from those that only ever failed', () => {
  const both = viewOf(site, [
    source('log', 'May', {
      '/old': hits(9, 2, '2026-05-02T10:00:00Z'),
      '/wp-login.php': hits(40, 0, '2026-05-03T10:00:00Z'),
      '/listed': hits(1, 0, '2026-05-03T10:00:00Z'),
    }),
    source('list', 'Campaigns', { '/listed': { rows: 1 }, '/': { rows: 1 } }),
  ]);
  expect(unknownOf(both.imports)).toEqual({ answered: ['/listed', '/old'].map(tiny), errors: [tiny('/wp-login.php')] });
});

it('gives a number of a source to its pages, and takes the first that says something', () => {
  const list = source('list', 'Campaigns', {
    '/': { rows: 1, visited_date: 1_700_000_000, clicks: 70 },
    '/trams': { rows: 3, visited_date: 1_700_000_000 },
  });
  const [matched] = viewOf(site, [list]).imports;
  const at = (column: Float64Array) => paths.map((path) => column[pageOf(site, tiny(path))]);
  expect(at(columnOfSource(site.count, matched, 'clicks'))).toEqual([70, -1, -1, -1]);
  expect(firstColumn(list)).toBe(list.columns.clicks);
  expect(firstColumn(source('list', 'Plain', { '/': { rows: 4 } }))).toEqual(Float64Array.of(4));
});
