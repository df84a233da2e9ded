import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { CheckedBound } from '$core/watchList';
import { crawling } from '../../../tests/support/crawling';
import { testDatabase } from '../../../tests/support/database';
import type { TestDatabase } from '../../../tests/support/database';
import { linking, standIn } from '../../../tests/support/standIn';
import {
  addBound,
  boundsOf,
  checkBounds,
  crawlState,
  dateNotes,
  deleteDateNote,
  openComparison,
  removeBound,
  saveDateNote,
  selectPages,
} from '..';

let test: TestDatabase;
let siteId: number;
const crawls: number[] = [];
let isLater = false;
beforeAll(async () => {
  test = await testDatabase();
  const site = await standIn((path) => {
    if (path === '/') return linking('Home', '/a', ...(isLater ? ['/gone', '/missing'] : ['/gone']));
    return path === '/a' ? linking('A', '/') : undefined;
  });
  const { crawl } = crawling(() => test.db);
  for (let round = 0; round < 2; round++) {
    crawls.push((await crawl(`${site.origin}/`)).crawlId);
    isLater = true;
  }
  siteId = (await crawlState(test.db, crawls[0]))!.siteId;
  await site.close();
});
afterAll(() => test.drop());

const checked = async (i: number) => {
  const all = await checkBounds(test.db, (await crawlState(test.db, crawls[i]))!);
  return Object.fromEntries(all.map((one) => [one.name, one])) as Record<string, CheckedBound>;
};

describe('the watch list', () => {
  it('is checked against each crawl, and the one before', async () => {
    const bound = { over: 'pages', atMost: null } as const;
    await addBound(test.db, siteId, { ...bound, name: 'Broken', text: 'broken' });
    await addBound(test.db, siteId, { ...bound, name: 'Two at most', text: 'broken', atMost: 2 });
    await addBound(test.db, siteId, { name: 'Finding', over: 'finding', text: 'links_to_broken', atMost: 0 });
    await addBound(test.db, siteId, { ...bound, name: 'New', text: 'new', atMost: 0 });
    const first = await checked(0);
    expect([first.Broken.count, first.Broken.before, first.Broken.isBroken]).toEqual([1, null, false]);
    expect(first.New).toMatchObject({ count: null, isBroken: false });
    expect(first.New.fault).toContain('no earlier crawl');
    const second = await checked(1);
    expect([second.Broken.count, second.Broken.before, second.Broken.isBroken]).toEqual([2, 1, true]);
    expect([second['Two at most'].isBroken, second.Finding.isBroken, second.New.count]).toEqual([false, true, 1]);
  });
  it('is as long as it is written', async () => {
    const [{ id }] = await boundsOf(test.db, siteId);
    expect(await removeBound(test.db, siteId + 1, id)).toBe(false);
    expect(await removeBound(test.db, siteId, id)).toBe(true);
    expect(Object.keys(await checked(1))).toEqual(['Two at most', 'Finding', 'New']);
  });
});

it('a watch list takes a hundred bounds, and no more, also when two are added at once', async () => {
  const site = siteId + 1000;
  await test.db.$client.query(
    `insert into site (id, start, start_hash, settings) select ?, 'https://many.example/', repeat('x', 16), settings from site where id = ?`,
    [site, siteId],
  );
  const add = () => addBound(test.db, site, { name: 'Any', over: 'pages', text: 'broken', atMost: 0 });
  for (let i = 0; i < 99; i++) expect(await add()).not.toBeNull();
  const both = await Promise.all([add(), add()]);
  expect(both.filter((id) => id === null)).toHaveLength(1);
  expect(await boundsOf(test.db, site)).toHaveLength(100);
});

describe('a comparison that is kept open', () => {
  const call = { since: null, map: [], by: [] };
  it('is that to the crawl before, and the same one when it is asked for again', async () => {
    const row = (await crawlState(test.db, crawls[1]))!;
    const open = (await openComparison(test.db, row, call, 'facts'))!;
    expect(open.earlier.id).toBe(crawls[0]);
    expect((await openComparison(test.db, row, { ...call, since: crawls[0] }, 'links'))!.snapshot).toBe(open.snapshot);
    expect(selectPages(open.snapshot, 'new').fault).toBeNull();
    // Its facts are those of the snapshot, and so is what is made of them.
    expect(open.snapshot.count).toBe(open.snapshot.comparison.fresh.count);
  });
  it('is one of another site only by a rule that says how addresses correspond', async () => {
    const other = await standIn((path) => (path === '/' ? linking('Staging', '/') : undefined));
    const { crawlId } = await crawling(() => test.db).crawl(`${other.origin}/`);
    await other.close();
    const row = (await crawlState(test.db, crawls[1]))!;
    const since = { ...call, since: crawlId };
    expect(await openComparison(test.db, row, since, 'facts')).toBeNull();
    const map = [{ from: new URL(other.origin).host, to: 'museum.example' }];
    expect((await openComparison(test.db, row, { ...since, map }, 'facts'))!.earlier.id).toBe(crawlId);
  });
  it('needs a crawl before', async () => {
    expect(await openComparison(test.db, (await crawlState(test.db, crawls[0]))!, call, 'facts')).toBeNull();
  });
});

describe('notes on dates', () => {
  it('are written, edited and removed', async () => {
    const id = await saveDateNote(test.db, siteId, { id: null, day: '2026-11-20', text: 'Relaunch' });
    await saveDateNote(test.db, siteId, { id: null, day: '2026-11-02', text: 'Linking work began' });
    expect(await saveDateNote(test.db, siteId, { id, day: '2026-11-21', text: 'Relaunch, a day late' })).toBe(id);
    expect(await saveDateNote(test.db, siteId + 1, { id, day: '2026-11-21', text: 'Of another site' })).toBeNull();
    expect((await dateNotes(test.db, siteId)).map(({ day, text }) => `${day} ${text}`)).toEqual([
      '2026-11-02 Linking work began',
      '2026-11-21 Relaunch, a day late',
    ]);
    await deleteDateNote(test.db, siteId, id!);
    expect(await dateNotes(test.db, siteId)).toHaveLength(1);
  });
});
