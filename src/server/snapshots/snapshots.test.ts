import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { packLinks } from '$core/links';
import { settingsSchema } from '$core/settings';
import { analyse } from '$core/analysis';
import { addressAt, encodeSnapshot, factAt, pageOf } from '$core/snapshot';
import { crawling, firstLease } from '../../../tests/support/crawling';
import { testDatabase } from '../../../tests/support/database';
import type { TestDatabase } from '../../../tests/support/database';
import { linking, standIn } from '../../../tests/support/standIn';
import { click, pageAt, storedCrawl } from '../../../tests/support/storedCrawl';
import { runAnalysis } from '../../crawl';
import {
  analysisProgress,
  crawlState,
  endCrawl,
  findingsOfPages,
  getCrawl,
  leaseWaiting,
  leaseJob,
  listWindow,
  openReport,
  openSnapshot,
  partNames,
  readBase,
  requestAnalysis,
  saveListings,
  savePages,
  seedFrontier,
  selectPages,
  storeSnapshot,
  UNLINKED_RANK,
} from '..';

let test: TestDatabase;
beforeAll(async () => (test = await testDatabase()));
afterAll(() => test.drop());
const done = { state: 'done', reason: null, limited: false } as const;

describe('snapshots', () => {
  it('are built, stored and opened again, and answer selections', async () => {
    const { id, store, frontier } = await storedCrawl(test.db, 'https://snap.example/');
    const take = (rank: number) => frontier.take(rank, 1, { pages: 100, external: 0 });
    const at = (path: string) => `https://snap.example${path}`;
    await seedFrontier(store, [at('/')], 0);
    await saveListings(
      store,
      at('/sitemap.xml'),
      [{ loc: at('/lost'), lastmod: '2026-10-02', line: 4 }],
      () => UNLINKED_RANK,
    );
    const [queued] = await take(0);
    const links = [click(at('/é'), 'Naïve “tram” 🚋'), click('https://else.example/')];
    await savePages(store, [pageAt(queued, [{ address: at('/é'), rank: 1, hops: 0 }], links)]);
    await savePages(store, [pageAt((await take(1))[0])]);
    await savePages(store, [pageAt((await take(UNLINKED_RANK))[0])]);
    const row = (await getCrawl(test.db, id))!;
    const analysed = analyse(await readBase(test.db, row, 'stopped'), settingsSchema.parse(row.settings));
    await storeSnapshot(test.db, firstLease(id), encodeSnapshot(analysed));
    await endCrawl(test.db, firstLease(id), done);

    const ended = (await crawlState(test.db, id))!;
    const snapshot = (await openSnapshot(test.db, ended, 'facts'))!;
    // Most of a snapshot are its links; they are read when they are asked for.
    const rows = (select: string, sort = '', from = 0, size = 10) =>
      listWindow(snapshot, { list: 'pages', select, sort, by: 'section' }, ['url', 'depth'], from, size);
    expect(rows('orphan').total).toBe(1);
    expect(addressAt(snapshot, 0)).toBe(at('/'));
    expect(() => snapshot.links.target).toThrow(/has not been read/);
    expect(() => selectPages(snapshot, 'links to (orphan)')).toThrow(/has not been read/);
    expect(await openSnapshot(test.db, ended, 'links')).toBe(snapshot);
    expect(rows('linked from (depth = 0)').rows).toMatchObject([{ cells: { url: at('/é') } }]);
    expect(snapshot.links.target).toEqual(analysed.links.target);

    expect(snapshot.phrases).toContain('Naïve “tram” 🚋');
    expect(snapshot.outside).toEqual(['https://else.example/']);
    expect(rows('orphan and seen in sitemap')).toMatchObject({
      total: 1,
      rows: [{ cells: { url: at('/lost'), depth: null } }],
    });
    expect(rows('', 'depth:desc', 0, 2).rows.map(({ cells }) => cells.depth)).toEqual([1, 0]);
    expect(rows('', 'depth:desc', 2, 2).rows.map(({ cells }) => cells.depth)).toEqual([null]);
    expect(selectPages(snapshot, 'depth >').fault).toMatchObject({ at: 7 });
    expect(await openSnapshot(test.db, { id: 999_999, analysedAt: null })).toBeNull();
  });
});

describe('a crawl that is analysed anew while it is looked at', () => {
  const { begin, finish } = crawling(() => test.db);
  it('is read as one of the analyses left it, never as a mixture of two', async () => {
    const site = await standIn({ '/': linking('Home', '/a'), '/a': linking('A', '/') });
    const { crawlId } = await finish(await begin(`${site.origin}/`));
    await site.close();
    // Analysed at another time, it is not the one that is open with its links.
    const ago = 'update crawl set analysed_at = analysed_at - interval 1 second where id = ?';
    await test.db.$client.query(ago, [crawlId]);
    const row = (await crawlState(test.db, crawlId))!;
    const before = (await openSnapshot(test.db, row, 'facts'))!;
    const titleOf = (view: typeof before) => factAt(view, 'title', pageOf(view, `${site.origin}/a`));
    expect(titleOf(before)).toBe('A');

    const change = `update page set title = 'Trams', links = ? where crawl_id = ? and title = 'A'`;
    await test.db.$client.query(change, [
      Buffer.from(
        packLinks(
          [],
          () => 0,
          () => 0,
        ),
      ),
      crawlId,
    ]);
    await requestAnalysis(test.db, crawlId);
    await runAnalysis({ db: test.db, lease: (await leaseJob(test.db, 'a'))! });

    // Facts and report of the earlier analysis stay together; its links are gone, and so all is read again.
    expect((await openReport(test.db, row))!.counts).toMatchObject({ known: 2 });
    const after = (await openSnapshot(test.db, row, 'links'))!;
    expect(titleOf(after)).toBe('Trams');
    expect(after.links.target).toHaveLength(1);
    await expect(partNames(test.db, row)).rejects.toMatchObject({ code: 'analysed_anew' });
    expect(await partNames(test.db, (await crawlState(test.db, crawlId))!)).toContain('fact.title.codes');
  });
});

describe('the report of a crawl', () => {
  const { begin, finish } = crawling(() => test.db);
  const pages = { '/': linking('Home', '/a', '/gone'), '/a': linking('A', '/gone', '/') };

  it('is stored with it, and names the findings of each page', async () => {
    const site = await standIn(pages);
    const { crawlId, snapshot } = await finish(await begin(`${site.origin}/`));
    await site.close();
    const row = (await crawlState(test.db, crawlId))!;
    const report = (await openReport(test.db, row))!;
    expect(report.counts).toMatchObject({ known: 3, indexable: 2, noRoute: 0 });
    const findingsAt = async (path: string) =>
      (await findingsOfPages(test.db, row, [pageOf(snapshot, site.origin + path)]))[0];
    expect(await findingsAt('/a')).toContain('links_to_broken');
    expect(await findingsAt('/gone')).not.toContain('links_to_broken');
  });
  it('of an earlier version is made anew by a worker, once, with the snapshot', async () => {
    const site = await standIn(pages);
    const { crawlId } = await finish(await begin(`${site.origin}/`));
    await site.close();
    const query = (sql: string) => test.db.$client.query(sql, [crawlId]);
    // Analysed at another time, it is not the one that is open.
    await query('update crawl set analysed_at = analysed_at + interval 1 second where id = ?');
    await query('delete from snapshot_chunk where crawl_id = ?');
    await query(`insert into snapshot_chunk values (?, 'head', 0, '{"version":4}')`);
    const row = (await crawlState(test.db, crawlId))!;
    expect(await openReport(test.db, row)).toBeNull();
    await expect(openSnapshot(test.db, row)).rejects.toMatchObject({ code: 'snapshot_version' });

    await requestAnalysis(test.db, crawlId);
    expect(await analysisProgress(test.db, crawlId)).toMatchObject({ step: null });
    expect(await leaseWaiting(test.db, crawlId, 'analysis', 'a')).not.toBeNull();
    expect(await leaseWaiting(test.db, crawlId, 'analysis', 'b')).toBeNull();
    await query(`update job set state = 'waiting' where crawl_id = ?`);
    await runAnalysis({ db: test.db, lease: (await leaseJob(test.db, 'c'))! });

    expect(await analysisProgress(test.db, crawlId)).toBeNull();
    expect((await openReport(test.db, row))!.counts.known).toBe(3);
    const snapshot = (await openSnapshot(test.db, row, 'facts'))!;
    expect(factAt(snapshot, 'title', pageOf(snapshot, `${site.origin}/a`))).toBe('A');
  });
});
