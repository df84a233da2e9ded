import type { RowDataPacket } from 'mysql2';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { crawling } from '../../../tests/support/crawling';
import { testDatabase } from '../../../tests/support/database';
import type { TestDatabase } from '../../../tests/support/database';
import { linking, standIn } from '../../../tests/support/standIn';
import type { StandIn } from '../../../tests/support/standIn';
import {
  crawlsOf,
  crawlState,
  deleteCrawl,
  deleteSite,
  getSite,
  openSnapshot,
  removeDeleted,
  saveSelection,
  siteByStart,
  siteNames,
  undelete,
} from '..';

let test: TestDatabase;
let site: StandIn;
let siteId: number;
let crawls: number[];
const { begin, crawl } = crawling(() => test.db);
const { signal } = new AbortController();

beforeAll(async () => {
  test = await testDatabase();
  let visits = 0;
  site = await standIn((path) => {
    if (path === '/') return linking('Home', '/same', '/new');
    if (path === '/same') return linking('Same', '/');
    return path === '/new' ? linking(`Visit ${visits++}`, '/') : undefined;
  });
  crawls = [];
  for (let i = 0; i < 2; i++) crawls.push((await crawl(`${site.origin}/`, { lists: [`${site.origin}/new`] })).crawlId);
  siteId = (await siteByStart(test.db, `${site.origin}/`))!.id;
});
afterAll(async () => {
  await site.close();
  await test.drop();
});

const query = async (sql: string, values: unknown[] = []) =>
  (await test.db.$client.query<RowDataPacket[]>(sql, values))[0];
const countOf = async (table: string, where = '1') =>
  (await query(`select count(*) as n from ${table} where ${where}`))[0].n as number;
/** As if the time for undoing had passed. */
const later = () =>
  Promise.all(
    ['crawl', 'site'].map((table) =>
      test.db.$client.query(`update ${table} set deleted_at = deleted_at - interval 1 minute`),
    ),
  );

describe('a crawl that is deleted', () => {
  it('is hidden at once, and stays where it is while that can be undone', async () => {
    const at = await deleteCrawl(test.db, crawls[0]);
    expect((await crawlsOf(test.db, siteId)).map(({ id }) => id)).toEqual([crawls[1]]);
    expect(await removeDeleted(test.db, signal)).toBe(false);
    expect(await undelete(test.db, siteId, at)).toBe(true);
    expect(await crawlsOf(test.db, siteId)).toHaveLength(2);
  });
  it('is removed with all that no other crawl needs', async () => {
    const sources = await countOf('source');
    const at = await deleteCrawl(test.db, crawls[0]);
    await later();
    expect(await removeDeleted(test.db, signal)).toBe(true);
    for (const table of ['page', 'frontier', 'tally', 'snapshot_chunk', 'job', 'crawl_import'])
      expect([table, await countOf(table, `crawl_id = ${crawls[0]}`)]).toEqual([table, 0]);
    // The page that changed between the crawls had another source in each.
    expect(await countOf('source')).toBe(sources - 1);
    expect(await undelete(test.db, siteId, at)).toBe(false);
    const left = (await crawlState(test.db, crawls[1]))!;
    expect((await openSnapshot(test.db, left))!.count).toBe(3);
  });
  it('is stopped when it runs, and removed when its worker has let go of it', async () => {
    const running = await begin(`${site.origin}/`);
    await deleteCrawl(test.db, running);
    expect((await crawlState(test.db, running))!.request).toBe('stop');
    await later();
    await removeDeleted(test.db, signal);
    expect(await crawlState(test.db, running)).toBeDefined();
    await query(`update job set state = 'done' where crawl_id = ?`, [running]);
    await removeDeleted(test.db, signal);
    expect(await crawlState(test.db, running)).toBeUndefined();
  });
  it('leaves sources alone while a crawl is under way, which may be about to use them', async () => {
    const own = (await crawl(`${site.origin}/`)).crawlId;
    const sources = await countOf('source');
    await begin(`${site.origin}/`, {}, null);
    await deleteCrawl(test.db, own);
    await later();
    expect(await removeDeleted(test.db, signal)).toBe(false);
    expect(await countOf('source')).toBe(sources);
    await query(`update job set state = 'done'`);
    expect(await removeDeleted(test.db, signal)).toBe(true);
    expect(await countOf('source')).toBeLessThan(sources);
  });
});

describe('a site that is deleted', () => {
  it('is gone with its crawls, and comes back with them', async () => {
    const before = (await crawlsOf(test.db, siteId)).map(({ id }) => id);
    const at = await deleteSite(test.db, siteId);
    expect(await siteNames(test.db)).toEqual([]);
    expect(await siteByStart(test.db, `${site.origin}/`)).toBeUndefined();
    expect(await undelete(test.db, siteId, at)).toBe(true);
    expect((await crawlsOf(test.db, siteId)).map(({ id }) => id)).toEqual(before);
  });
  it('leaves nothing behind', async () => {
    await saveSelection(test.db, siteId, { name: 'Orphans', over: 'pages', text: 'orphan' });
    await deleteSite(test.db, siteId);
    await query(`update job set state = 'done'`);
    await later();
    expect(await removeDeleted(test.db, signal)).toBe(true);
    expect(await getSite(test.db, siteId)).toBeUndefined();
    const kept = ['crawl', 'page', 'source', 'url', 'phrase', 'saved_selection', 'url_import', 'import_chunk'];
    for (const table of kept) expect([table, await countOf(table)]).toEqual([table, 0]);
  });
});
