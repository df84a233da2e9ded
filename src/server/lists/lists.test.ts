import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { View } from '$core/view';
import { tinySite } from '$core/testing/tinySite';
import { crawling } from '../../../tests/support/crawling';
import { testDatabase } from '../../../tests/support/database';
import type { TestDatabase } from '../../../tests/support/database';
import { linking, standIn } from '../../../tests/support/standIn';
import { listOf, listSummaries, listWindow, orderedRows, valuesOf } from '..';
import type { ListView } from '..';

let test: TestDatabase;
let origin: string;
let snapshot: View;
beforeAll(async () => {
  test = await testDatabase();
  const site = await standIn({
    '/': linking('Home', '/a', '/b', '/gone'),
    '/a': linking('A', '/gone', '/'),
    '/b': linking('Café', '/a'),
  });
  origin = site.origin;
  snapshot = (await crawling(() => test.db).crawl(`${origin}/`)).snapshot;
  await site.close();
});
afterAll(() => test.drop());

const view = (changes: Partial<ListView> = {}): ListView => ({
  list: 'pages',
  select: '',
  sort: '',
  by: 'section',
  ...changes,
});

describe('a view of a list', () => {
  it('is asked for in windows, sorted and grouped', () => {
    const window = listWindow(snapshot, view({ sort: 'links_in:desc' }), ['url', 'links_in', 'frobnication'], 1, 2);
    expect(window).toMatchObject({ total: 4, from: 1 });
    expect(window.rows).toHaveLength(2);
    expect(Object.keys(window.rows[0].cells)).toEqual(['url', 'links_in']);
    const edits = listWindow(
      snapshot,
      view({ list: 'edits', select: 'kind = click and to (broken)' }),
      ['target', 'pages'],
      0,
      5,
    );
    expect(edits.rows.map(({ cells }) => cells)).toEqual([{ target: `${origin}/gone`, pages: 2 }]);
    const groups = listWindow(snapshot, view({ list: 'groups', by: 'verdict' }), ['value', 'pages'], 0, 5);
    expect(groups.rows.map(({ select }) => select)).toEqual(['verdict = "indexable"', 'verdict = "broken"']);
  });
  it('has the same rows whether its head is looked at first or all of it', () => {
    const many = tinySite(
      Object.fromEntries(Array.from({ length: 11_000 }, (_, i) => [`/${i}`, { title: `Tram ${i % 700}` }])),
    );
    const rows = (from: number, size: number) => {
      const { total, rows } = listWindow(many, view({ sort: 'title:desc' }), ['title'], from, size);
      expect(total).toBe(many.count);
      return rows;
    };
    const head = rows(0, 100);
    const next = rows(450, 100);
    const all = rows(0, many.count);
    expect(all).toHaveLength(many.count);
    expect(all.slice(0, 100)).toEqual(head);
    expect(all.slice(450, 550)).toEqual(next);
    expect(head[0].cells.title).toBe('Tram 99');
  });
  it('holds nothing, and says why, when its selection cannot be read', () => {
    const { list, fault } = listOf(snapshot, view({ list: 'links', select: 'kindd = click' }));
    expect(fault).toMatchObject({ at: 0, length: 5 });
    expect(list.rows).toHaveLength(0);
    // A column that the list lacks leaves the order as it is.
    expect(orderedRows(snapshot, view({ sort: 'nothing:desc' }))).toEqual(orderedRows(snapshot, view()));
  });
  it('has a summary of the columns that are asked for', () => {
    const { verdict, ...others } = listSummaries(snapshot, view(), ['verdict', 'frobnication']);
    expect(verdict.map(({ label, rows }) => [label, rows])).toEqual([
      ['indexable', 3],
      ['broken', 1],
    ]);
    expect(others).toEqual({});
  });
  it('offers known values to whoever writes a selection', () => {
    expect(valuesOf(snapshot, 'title', '')).toEqual(['A', 'Café', 'Home']);
    expect(valuesOf(snapshot, 'title', 'Ca')).toEqual(['Café']);
    expect(valuesOf(snapshot, 'depth', '')).toEqual([]);
    expect(valuesOf(snapshot, 'constructor', '')).toEqual([]);
  });
});
