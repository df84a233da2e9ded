import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { bundleLinks } from '$core/links';
import type { Link } from '$core/links';
import { noSecrets, settingsSchema } from '$core/settings';
import { nothingFound } from '$core/snapshot';
import { expireLease, expireMember, testDatabase } from '../../tests/support/database';
import type { TestDatabase } from '../../tests/support/database';
import { decodeSnapshot, encodeSnapshot, factAt } from '$core/snapshot';
import type { SnapshotParts } from '$core/snapshot';
import {
  addCrawl,
  askCrew,
  beatCrew,
  continueCrawl,
  crawlStore,
  frontierOf,
  getCrawl,
  heldHosts,
  helpableCrawl,
  holdHost,
  isLed,
  joinCrew,
  leaseJob,
  listWindow,
  LostMembership,
  makeSnapshot,
  markEnded,
  markStarted,
  openSnapshot,
  prepareDatabase,
  releaseJob,
  renewJob,
  reserveRequests,
  saveSite,
  secretsOf,
  selectPages,
  snapshotPart,
  sitesWithNewestCrawl,
  UNLINKED_RANK,
  watchCrawl,
} from './index';
import type { PageResult, Turn } from './index';
import { job } from './schema';
import { seal, unseal } from './secrets';

let test: TestDatabase;
beforeAll(async () => (test = await testDatabase()));
afterAll(() => test.drop());

const start = 'https://museum.example/';
const settingsOf = (address: string) => settingsSchema.parse({ start: address });

async function newCrawl(address = start) {
  const settings = settingsOf(address);
  const siteId = await saveSite(test.db, settings);
  const id = await addCrawl(test.db, siteId, settings, 'test');
  const member = await joinCrew(test.db, id, 'test');
  return {
    id,
    siteId,
    member,
    store: crawlStore(test.db, id, siteId, member),
    frontier: frontierOf(test.db, id, member),
  };
}
const pageAt = (turn: Turn, discoveries: PageResult['discoveries'] = [], links: readonly Link[] = []): PageResult => ({
  ...nothingFound,
  turn,
  status: 200,
  html: true,
  bytes: 100,
  fetchedAt: new Date(0),
  title: `Title of ${turn.address}`,
  links: bundleLinks(links),
  discoveries,
  source: null,
  headers: 'content-type: text/html',
});
const click = (target: string, anchor = '') =>
  ({
    kind: 'click',
    element: 'a',
    target,
    anchor,
    rel: '',
    landmark: 'main',
    path: 'body>main',
    fragment: '',
    line: 1,
    column: 1,
  }) as const;

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
    expect(await renewJob(test.db, id, owner, start, 10)).toBe(true);
    expect(await isLed(test.db, id)).toBe(true);
    await expireLease(test.db, id);
    expect(await isLed(test.db, id)).toBe(false);
    expect(await leaseJob(test.db, 'd')).toBe(id);
    expect(await renewJob(test.db, id, owner, start, 10)).toBe(false);
    await askCrew(test.db, id, 'stop');
    expect((await getCrawl(test.db, id))!.request).toBe('stop');
    await releaseJob(test.db, id, 'waiting');
    expect(await leaseJob(test.db, 'e')).toBe(id);
    await markEnded(test.db, id, { state: 'stopped', reason: 'enough', limited: false });
    expect(await getCrawl(test.db, id)).toMatchObject({ state: 'stopped', reason: 'enough', ranMs: 10 });
    expect(await leaseJob(test.db, 'f')).toBeNull();
    await continueCrawl(test.db, id, { ...settings, limit: 7 });
    expect(await getCrawl(test.db, id)).toMatchObject({
      state: 'waiting',
      reason: null,
      request: null,
      settings: { limit: 7 },
    });
    expect(await leaseJob(test.db, 'g')).toBe(id);
    await markEnded(test.db, id, { state: 'done', reason: null, limited: false });
  });
  it('that are paused wait for a person', async () => {
    const settings = settingsOf('https://pause.example/');
    const id = await addCrawl(test.db, await saveSite(test.db, settings), settings);
    await askCrew(test.db, id, 'pause');
    expect(await getCrawl(test.db, id)).toMatchObject({ state: 'paused', request: null });
    expect(await leaseJob(test.db, 'a')).toBeNull();
    await continueCrawl(test.db, id);
    expect(await leaseJob(test.db, 'a')).toBe(id);
    await markEnded(test.db, id, { state: 'done', reason: null, limited: false });
  });
});

describe('the frontier', () => {
  const limits = { pages: 1000, external: 10 };
  const take = ({ frontier }: Awaited<ReturnType<typeof newCrawl>>, rank: number) => frontier.take(rank, 10, limits);
  const counts = async (id: number) => {
    const { known, done, bytes, asked } = (await getCrawl(test.db, id))!;
    return { known, done, bytes, asked };
  };

  it('gives turns by rank, and moves what is found on a shorter way forward', async () => {
    const crawl = await newCrawl();
    await crawl.store.seed([start], 0);
    await crawl.store.saveListings(
      `${start}sitemap.xml`,
      [{ loc: `${start}b`, lastmod: null, line: 3 }],
      [{ address: `${start}b`, rank: UNLINKED_RANK, hops: 0 }],
    );
    expect(await crawl.frontier.nextRank(null)).toBe(0);
    const [first] = await take(crawl, 0);
    await crawl.store.save([
      pageAt(first, [
        { address: `${start}a`, rank: 1, hops: 0 },
        { address: `${start}b`, rank: 5, hops: 0 },
      ]),
    ]);
    expect((await take(crawl, 1)).map(({ address }) => address)).toEqual([`${start}a`]);
    expect((await take(crawl, 5)).map(({ address }) => address)).toEqual([`${start}b`]);
    expect(await crawl.frontier.nextRank(0)).toBeNull();
    expect(await counts(crawl.id)).toEqual({ known: 3, done: 1, bytes: 100, asked: 3 });
  });
  it('keeps addresses apart that differ in case only', async () => {
    const { id, store } = await newCrawl('https://case.example/');
    await store.seed(['https://case.example/A', 'https://case.example/a', 'https://case.example/a '.trim()], 0);
    expect(await counts(id)).toMatchObject({ known: 2 });
  });
  it('stores a page once, and counts it once, though it comes twice', async () => {
    const crawl = await newCrawl('https://twice.example/');
    await crawl.store.seed(['https://twice.example/'], 0);
    const [turn] = await take(crawl, 0);
    const result = pageAt(turn, [{ address: 'https://twice.example/x', rank: 1, hops: 0 }]);
    await crawl.store.save([result]);
    await crawl.store.save([result]);
    expect(await counts(crawl.id)).toMatchObject({ known: 2, done: 1, bytes: 100 });
  });
  it('leaves nothing behind when a batch fails', async () => {
    const crawl = await newCrawl('https://whole.example/');
    await crawl.store.seed(['https://whole.example/'], 0);
    const [turn] = await take(crawl, 0);
    const bad = pageAt(turn, [{ address: 'https://whole.example/x', rank: 1, hops: 0 }]);
    // A column that cannot hold a value must not lose or bend it in silence.
    await expect(crawl.store.save([{ ...bad, turn: { ...turn, urlId: -1 } }])).rejects.toThrow();
    expect(await counts(crawl.id)).toMatchObject({ known: 1, done: 0 });
  });
  it('gives what a member held to the others when its lease runs out, and takes nothing more from it', async () => {
    const crawl = await newCrawl('https://crew.example/');
    const [a, b] = ['/a', '/b'].map((path) => `https://crew.example${path}`);
    await crawl.store.seed([a, b], 0);
    const held = await take(crawl, 0);
    expect(held).toHaveLength(2);
    const other = await joinCrew(test.db, crawl.id, 'other');
    const frontier = frontierOf(test.db, crawl.id, other);
    expect(await frontier.take(0, 10, limits)).toEqual([]);
    expect(await frontier.othersHold(0)).toBe(true);
    await expireMember(test.db, crawl.member);
    expect(await beatCrew(test.db, crawl.id, other)).toBe(1);
    expect(await counts(crawl.id)).toMatchObject({ asked: 0 });
    expect(await frontier.take(0, 10, limits)).toHaveLength(2);
    await expect(crawl.store.save([pageAt(held[0])])).rejects.toThrow(LostMembership);
    await expect(take(crawl, 0)).rejects.toThrow(LostMembership);
    expect(await beatCrew(test.db, crawl.id, crawl.member)).toBe(0);
  });
  it('gives no more than the limit of pages, whoever asks', async () => {
    const crawl = await newCrawl('https://limit.example/');
    await crawl.store.seed(
      Array.from({ length: 9 }, (_, i) => `https://limit.example/${i}`),
      0,
    );
    const other = frontierOf(test.db, crawl.id, await joinCrew(test.db, crawl.id, 'other'));
    const taken = await Promise.all([crawl.frontier, other].map((one) => one.take(0, 3, { pages: 5, external: 0 })));
    expect(taken.flat()).toHaveLength(5);
    expect(new Set(taken.flat().map(({ urlId }) => urlId)).size).toBe(5);
    expect(await crawl.frontier.atLimit(5)).toBe(true);
  });
});

describe('the pace of a host', () => {
  it('is one for all who ask', async () => {
    const waits = [
      await reserveRequests(test.db, 'slow.example', 100, 3),
      await reserveRequests(test.db, 'slow.example', 100, 2),
    ].flat();
    // Some time passes between the two calls, which shortens what is left to wait.
    waits.forEach((wait, i) => expect(wait).toBeLessThanOrEqual(i * 100 + 1));
    expect(waits[3]).toBeGreaterThan(waits[2]);
    expect(await heldHosts(test.db)).toEqual([]);
  });
  it('stops when it asks to be left alone', async () => {
    await holdHost(test.db, 'busy.example', 60_000, 'It answered 429.');
    await holdHost(test.db, 'busy.example', 10, 'It answered 503.');
    const [held] = (await heldHosts(test.db)).filter(({ host }) => host === 'busy.example');
    expect(held.reason).toBe('It answered 429.');
    expect(held.wait).toBeGreaterThan(30_000);
    expect((await reserveRequests(test.db, 'busy.example', 10, 1))[0]).toBeGreaterThan(30_000);
  });
});

describe('what is seen of a running crawl', () => {
  it('is what waits, what came of it, the newest pages, and a warning when the site is closed', async () => {
    const at = (n: number) => `https://watch.example/${n}`;
    const crawl = await newCrawl('https://watch.example/');
    await crawl.store.seed(
      Array.from({ length: 7 }, (_, n) => at(n)),
      0,
    );
    await crawl.store.seed([at(8)], UNLINKED_RANK);
    const turns = await crawl.frontier.take(0, 6, { pages: 100, external: 0 });
    const shut = { noindex: true, directives: 'meta robots: noindex (line 4)' };
    await crawl.store.save(turns.map((turn, n) => ({ ...pageAt(turn), ...shut, fetchedAt: new Date(n * 1000) })));
    const watched = await watchCrawl(test.db, (await getCrawl(test.db, crawl.id))!);
    expect(watched.waiting).toEqual([
      { label: 'start', n: 1 },
      { label: 'known from other sources', n: 1 },
    ]);
    expect(watched.outcomes).toEqual([{ label: 'answered 200', n: 6, bad: false }]);
    expect(watched.newest[0]).toMatchObject({ address: at(5), status: 200, blocked: false });
    expect(watched.warning).toMatch(/Every page read so far says noindex.*meta robots: noindex \(line 4\)/);
    expect([watched.workers, watched.traps]).toEqual([1, 0]);
  });
  it('is helped with by others only when a worker leads it', async () => {
    const settings = settingsOf('https://help.example/');
    const add = async (owner: string) => {
      const id = await addCrawl(test.db, await saveSite(test.db, settings), settings, owner);
      await markStarted(test.db, id);
      return id;
    };
    const terminal = await add('terminal:x');
    expect(await helpableCrawl(test.db, 'worker:')).toBeNull();
    const led = await add('worker:x');
    expect(await helpableCrawl(test.db, 'worker:')).toBe(led);
    await expireLease(test.db, led);
    expect(await helpableCrawl(test.db, 'worker:')).toBeNull();
    for (const id of [terminal, led]) await markEnded(test.db, id, { state: 'done', reason: null, limited: false });
  });
});

describe('secrets', () => {
  const secrets = { headers: [{ name: 'X-Key', value: 'tram' }], cookie: '', basic: { user: 'u', password: 'päss' } };
  it('lie sealed in the database, go with every crawl, and are kept until others are given', async () => {
    const settings = settingsOf('https://secret.example/');
    const siteId = await saveSite(test.db, settings, secrets);
    await saveSite(test.db, settings);
    const row = (await getCrawl(test.db, await addCrawl(test.db, siteId, settings, 'test')))!;
    expect(row.secrets!.toString('latin1')).not.toContain('tram');
    expect(secretsOf(row)).toEqual(secrets);
    await saveSite(test.db, settings, noSecrets);
    expect(secretsOf((await getCrawl(test.db, await addCrawl(test.db, siteId, settings, 'test')))!)).toEqual(noSecrets);
  });
  it('cannot be read with another key', () => {
    const sealed = seal(secrets);
    sealed[sealed.length - 1] ^= 1;
    expect(() => unseal(sealed)).toThrow(/another key/);
  });
});

describe('snapshots', () => {
  it('are built, stored and opened again, and answer selections', async () => {
    const { id, store, frontier } = await newCrawl('https://snap.example/');
    const take = (rank: number) => frontier.take(rank, 1, { pages: 100, external: 0 });
    const at = (path: string) => `https://snap.example${path}`;
    await store.seed([at('/')], 0);
    await store.saveListings(
      at('/sitemap.xml'),
      [{ loc: at('/lost'), lastmod: '2026-10-02', line: 4 }],
      [{ address: at('/lost'), rank: UNLINKED_RANK, hops: 0 }],
    );
    const [turn] = await take(0);
    await store.save([
      pageAt(
        turn,
        [{ address: at('/é'), rank: 1, hops: 0 }],
        [click(at('/é'), 'Naïve “tram” 🚋'), click('https://else.example/')],
      ),
    ]);
    const [second] = await take(1);
    await store.save([pageAt(second)]);
    const [lost] = await take(UNLINKED_RANK);
    await store.save([pageAt(lost)]);
    await makeSnapshot(test.db, (await getCrawl(test.db, id))!);
    await markEnded(test.db, id, { state: 'done', reason: null, limited: false });

    const ended = (await getCrawl(test.db, id))!;
    const snapshot = (await openSnapshot(test.db, ended, 'facts'))!;
    // Most of a snapshot are its links; they are read when they are asked for.
    const rows = (select: string, sort = '', from = 0, size = 10) =>
      listWindow(snapshot, { list: 'pages', select, sort, by: 'section' }, ['url', 'depth'], from, size);
    expect(rows('orphan').total).toBe(1);
    expect(() => snapshot.links.target).toThrow(/has not been read/);
    expect(() => selectPages(snapshot, 'links to (orphan)')).toThrow(/has not been read/);
    expect(await openSnapshot(test.db, ended, 'links')).toBe(snapshot);
    expect(rows('linked from (depth = 0)').rows).toMatchObject([{ cells: { url: at('/é') } }]);

    // What a browser is sent is the same, part by part.
    const parts: SnapshotParts = new Map();
    for (const name of encodeSnapshot(snapshot).keys()) parts.set(name, (await snapshotPart(test.db, id, name))!);
    expect(factAt(decodeSnapshot(parts), 'url', 0)).toBe(factAt(snapshot, 'url', 0));
    expect(decodeSnapshot(parts).links.target).toEqual(snapshot.links.target);
    expect(await snapshotPart(test.db, id, 'no such part')).toBeNull();

    expect(snapshot.phrases).toContain('Naïve “tram” 🚋');
    expect(snapshot.outside).toEqual(['https://else.example/']);
    expect(rows('orphan and seen in sitemap')).toMatchObject({
      total: 1,
      rows: [{ cells: { url: at('/lost'), depth: null } }],
    });
    expect(rows('', 'depth:desc', 0, 2).rows.map(({ cells }) => cells.depth)).toEqual([1, 0]);
    expect(rows('', 'depth:desc', 2, 2).rows.map(({ cells }) => cells.depth)).toEqual([null]);
    expect(selectPages(snapshot, 'depth >').fault).toMatchObject({ at: 7 });
    expect(await openSnapshot(test.db, { id: 999_999, endedAt: null })).toBeNull();
  });
});
