import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { settingsSchema } from '$core/settings';
import { nothingFound } from '$core/snapshot';
import { expireLease, testDatabase } from '../../tests/support/database';
import type { TestDatabase } from '../../tests/support/database';
import { addCrawl, continueCrawl, crawlStore, getCrawl, heartbeat, leaseJob, listWindow, makeSnapshot, markEnded, openSnapshot, prepareDatabase, releaseJob, requestStop, saveSite, selectPages, sitesWithNewestCrawl, UNLINKED_RANK } from './index'; // prettier-ignore
import type { PageResult, Turn } from './index';
import { job } from './schema';

let test: TestDatabase;
beforeAll(async () => (test = await testDatabase()));
afterAll(() => test.drop());

const start = 'https://museum.example/';
const settingsOf = (address: string) => settingsSchema.parse({ start: address });
const progress = { known: 3, done: 1, unanswered: 0, bytes: 10, current: start };

async function newCrawl(address = start) {
  const settings = settingsOf(address);
  const siteId = await saveSite(test.db, settings);
  const id = await addCrawl(test.db, siteId, settings, 'test');
  return { id, siteId, store: crawlStore(test.db, id, siteId) };
}
const pageAt = (
  turn: Turn,
  discoveries: PageResult['discoveries'] = [],
  links: PageResult['links'] = [],
): PageResult => ({
  ...nothingFound,
  turn,
  status: 200,
  html: true,
  bytes: 100,
  fetchedAt: new Date(0),
  title: `Title of ${turn.address}`,
  links,
  discoveries,
});
const click = (target: string, anchor = '') => ({ kind: 'click', element: 'a', target, anchor, rel: '', landmark: 'main', path: 'body>main', line: 1, column: 1 }) as const; // prettier-ignore

describe('the database', () => {
  it('may be prepared by several processes at once', async () => {
    await Promise.all([prepareDatabase(test.url), prepareDatabase(test.url), prepareDatabase(test.url)]);
  });
  it('says in words that it does not answer', () =>
    expect(prepareDatabase('mysql://u:p@127.0.0.1:9/edgemap')).rejects.toThrow(/does not answer/));
});

describe('sites', () => {
  it('are known by their start address and keep their newest settings', async () => {
    const one = await saveSite(test.db, settingsOf('https://one.example/'));
    expect(await saveSite(test.db, { ...settingsOf('https://one.example/'), depth: 3 })).toBe(one);
    const crawl = await addCrawl(test.db, one, settingsOf('https://one.example/'));
    const found = (await sitesWithNewestCrawl(test.db)).find(({ site }) => site.id === one)!;
    expect(found.site.settings.depth).toBe(3);
    expect(found.newest?.id).toBe(crawl);
    await test.db.delete(job).where(eq(job.crawlId, crawl));
  });
});

describe('jobs', () => {
  it('go to one worker only, and to another when a lease runs out', async () => {
    const settings = settingsOf('https://jobs.example/');
    const id = await addCrawl(test.db, await saveSite(test.db, settings), settings);
    const leased = await Promise.all(['a', 'b', 'c'].map((owner) => leaseJob(test.db, owner)));
    expect(leased.filter((crawl) => crawl === id)).toHaveLength(1);
    const owner = ['a', 'b', 'c'][leased.indexOf(id)];
    expect(await heartbeat(test.db, id, owner, progress)).toEqual({ held: true, stopRequested: false });
    await expireLease(test.db, id);
    expect(await leaseJob(test.db, 'd')).toBe(id);
    expect(await heartbeat(test.db, id, owner, progress)).toMatchObject({ held: false });
    await requestStop(test.db, id);
    expect(await heartbeat(test.db, id, 'd', progress)).toEqual({ held: true, stopRequested: true });
    await releaseJob(test.db, id);
    expect(await leaseJob(test.db, 'e')).toBe(id);
    await markEnded(test.db, id, { state: 'stopped', reason: 'enough', limited: false });
    expect(await getCrawl(test.db, id)).toMatchObject({ state: 'stopped', reason: 'enough', known: 3 });
    expect(await leaseJob(test.db, 'f')).toBeNull();
    await continueCrawl(test.db, id);
    expect(await getCrawl(test.db, id)).toMatchObject({ state: 'waiting', reason: null, stopRequested: false });
    expect(await leaseJob(test.db, 'g')).toBe(id);
  });
});

describe('the frontier', () => {
  it('gives turns by rank, and moves what is found on a shorter way forward', async () => {
    const { store } = await newCrawl();
    expect(await store.begin([start])).toBe(1);
    await store.saveListings(`${start}sitemap.xml`, [{ loc: `${start}b`, lastmod: null, line: 3 }]);
    expect(await store.nextRank(null)).toBe(0);
    const [first] = await store.turnsAt(0, [], 10);
    expect(await store.save([pageAt(first, [{ address: `${start}a`, rank: 1, hops: 0 }, { address: `${start}b`, rank: 5, hops: 0 }])])).toBe(1); // prettier-ignore
    expect((await store.turnsAt(1, [], 10)).map(({ address }) => address)).toEqual([`${start}a`]);
    expect((await store.turnsAt(5, [], 10)).map(({ address }) => address)).toEqual([`${start}b`]);
    expect(await store.nextRank(0)).toBeNull();
    expect(await store.counts()).toMatchObject({ known: 3, done: 1, fetched: 1, bytes: 100 });
  });
  it('keeps addresses apart that differ in case only', async () => {
    const { store } = await newCrawl('https://case.example/');
    expect(
      await store.begin(['https://case.example/A', 'https://case.example/a', 'https://case.example/a '.trim()]),
    ).toBe(2);
  });
  it('stores a page once, though it comes twice', async () => {
    const { store } = await newCrawl('https://twice.example/');
    await store.begin(['https://twice.example/']);
    const [turn] = await store.turnsAt(0, [], 1);
    const result = pageAt(turn, [{ address: 'https://twice.example/x', rank: 1, hops: 0 }]);
    expect(await store.save([result])).toBe(1);
    expect(await store.save([result])).toBe(0);
    expect(await store.counts()).toMatchObject({ known: 2, done: 1 });
  });
  it('leaves nothing behind when a batch fails', async () => {
    const { store } = await newCrawl('https://whole.example/');
    await store.begin(['https://whole.example/']);
    const [turn] = await store.turnsAt(0, [], 1);
    const bad = { ...pageAt(turn, [{ address: 'https://whole.example/x', rank: 1, hops: 0 }]), status: 99_999_999 };
    // `insert ignore` would bend the value; a column that cannot hold the row must not lose it in silence.
    await expect(store.save([{ ...bad, turn: { ...turn, urlId: -1 } }])).rejects.toThrow();
    expect(await store.counts()).toMatchObject({ known: 1, done: 0 });
  });
});

describe('snapshots', () => {
  it('are built, stored and opened again, and answer selections', async () => {
    const { id, store } = await newCrawl('https://snap.example/');
    const at = (path: string) => `https://snap.example${path}`;
    await store.begin([at('/')]);
    await store.saveListings(at('/sitemap.xml'), [{ loc: at('/lost'), lastmod: '2026-10-02', line: 4 }]);
    const [turn] = await store.turnsAt(0, [], 1);
    await store.save([
      pageAt(
        turn,
        [{ address: at('/é'), rank: 1, hops: 0 }],
        [click(at('/é'), 'Naïve “tram” 🚋'), click('https://else.example/')],
      ),
    ]);
    const [second] = await store.turnsAt(1, [], 1);
    await store.save([pageAt(second)]);
    const [lost] = await store.turnsAt(UNLINKED_RANK, [], 1);
    await store.save([pageAt(lost)]);
    await makeSnapshot(test.db, (await getCrawl(test.db, id))!);
    await markEnded(test.db, id, { state: 'done', reason: null, limited: false });

    const snapshot = (await openSnapshot(test.db, (await getCrawl(test.db, id))!))!;
    expect(snapshot.phrases).toContain('Naïve “tram” 🚋');
    expect(snapshot.outside).toEqual(['https://else.example/']);
    expect(listWindow(snapshot, 'orphan and seen in sitemap', '', 0, 10)).toMatchObject({
      total: 1,
      rows: [{ url: at('/lost'), depth: null }],
    });
    expect(listWindow(snapshot, '', 'depth:desc', 0, 2).rows.map(({ depth }) => depth)).toEqual([1, 0]);
    expect(listWindow(snapshot, '', 'depth:desc', 2, 2).rows.map(({ depth }) => depth)).toEqual([null]);
    expect(selectPages(snapshot, 'depth >').fault).toMatchObject({ at: 7 });
    expect(await openSnapshot(test.db, { id: 999_999, endedAt: null })).toBeNull();
  });
});
