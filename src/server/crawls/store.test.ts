import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addressAt } from '$core/snapshot';
import type { CrawlSettings } from '$core/settings';
import { expireWorker, testDatabase } from '../../../tests/support/database';
import type { TestDatabase } from '../../../tests/support/database';
import { click, pageAt, storedCrawl } from '../../../tests/support/storedCrawl';
import {
  crawlState,
  frontierOf,
  getCrawl,
  joinCrawl,
  leaveCrawl,
  nextSitemaps,
  openStore,
  queueSitemaps,
  readBase,
  renewWorker,
  resumeCrawl,
  saveListings,
  savePages,
  saveSitemap,
  seedFrontier,
  sitemapState,
  UNLINKED_RANK,
  watchCrawl,
} from '..';

let test: TestDatabase;
beforeAll(async () => (test = await testDatabase()));
afterAll(() => test.drop());

const newCrawl = (start: string, settings: Partial<CrawlSettings> = {}) => storedCrawl(test.db, start, settings);
const limits = { pages: 1000, external: 10 };
const take = ({ frontier }: Awaited<ReturnType<typeof newCrawl>>, rank: number) => frontier.take(rank, 10, limits);
const counts = async (id: number) => {
  const { known, done, bytes } = (await crawlState(test.db, id))!;
  return { known, done, bytes, asked: (await getCrawl(test.db, id))!.asked };
};

describe('the frontier', () => {
  it('is taken from by rank, and what is found on a shorter route moves forward', async () => {
    const start = 'https://museum.example/';
    const crawl = await newCrawl(start);
    await seedFrontier(crawl.store, [start], 0);
    await saveListings(
      crawl.store,
      `${start}sitemap.xml`,
      [{ loc: `${start}b`, lastmod: null, line: 3 }],
      () => UNLINKED_RANK,
    );
    expect(await crawl.frontier.nextRank(null)).toBe(0);
    const [first] = await take(crawl, 0);
    await savePages(crawl.store, [
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
    await seedFrontier(store, ['https://case.example/A', 'https://case.example/a'], 0);
    expect(await counts(id)).toMatchObject({ known: 2 });
  });
  it('stores a page once, and counts it once, though it comes twice', async () => {
    const crawl = await newCrawl('https://twice.example/');
    await seedFrontier(crawl.store, ['https://twice.example/'], 0);
    const [queued] = await take(crawl, 0);
    const result = pageAt(queued, [{ address: 'https://twice.example/x', rank: 1, hops: 0 }]);
    await savePages(crawl.store, [result]);
    await savePages(crawl.store, [result]);
    expect(await counts(crawl.id)).toMatchObject({ known: 2, done: 1, bytes: 100 });
  });
  it('leaves nothing behind when a batch fails', async () => {
    const crawl = await newCrawl('https://whole.example/');
    await seedFrontier(crawl.store, ['https://whole.example/'], 0);
    const [queued] = await take(crawl, 0);
    const bad = pageAt(queued, [{ address: 'https://whole.example/x', rank: 1, hops: 0 }]);
    // A column that cannot hold a value must not lose or bend it in silence.
    await expect(savePages(crawl.store, [{ ...bad, queued: { ...queued, urlId: -1 } }])).rejects.toThrow();
    expect(await counts(crawl.id)).toMatchObject({ known: 1, done: 0 });
  });
  it('gives what a worker held to the others when its lease runs out, and takes nothing more from it', async () => {
    const crawl = await newCrawl('https://lease.example/');
    await seedFrontier(crawl.store, ['https://lease.example/a', 'https://lease.example/b'], 0);
    const held = await take(crawl, 0);
    expect(held).toHaveLength(2);
    expect(await crawl.frontier.held()).toEqual(held);
    const other = await joinCrawl(test.db, crawl.id, 'other');
    const frontier = frontierOf(test.db, crawl.id, other);
    expect(await frontier.take(0, 10, limits)).toEqual([]);
    expect(await frontier.othersHold(0)).toBe(true);
    await expireWorker(test.db, crawl.worker);
    expect(await renewWorker(test.db, crawl.id, other)).toBe(1);
    expect(await counts(crawl.id)).toMatchObject({ asked: 0 });
    expect(await frontier.take(0, 10, limits)).toHaveLength(2);
    await expect(savePages(crawl.store, [pageAt(held[0])])).rejects.toMatchObject({ code: 'membership_lost' });
    await expect(take(crawl, 0)).rejects.toMatchObject({ code: 'membership_lost' });
    expect(await renewWorker(test.db, crawl.id, crawl.worker)).toBe(0);
  });
  it('leaves what a host keeps back until the crawl is resumed', async () => {
    const at = (path: string) => `https://held.example/${path}`;
    const { id, store, frontier } = await newCrawl(at(''));
    await seedFrontier(store, ['a', 'b', 'c'].map(at), 0);
    const [first] = await frontier.take(0, 1, limits);
    await frontier.leaveHosts([first.urlId]);
    expect(await frontier.leftHosts()).toEqual({ pages: 1, example: at('a') });
    expect((await frontier.take(0, 5, limits)).map(({ address }) => address)).toEqual([at('b'), at('c')]);
    expect(await counts(id)).toMatchObject({ known: 3, asked: 2 });
    await resumeCrawl(test.db, id);
    expect(await frontier.leftHosts()).toBeNull();
    expect((await frontier.take(0, 5, limits)).map(({ address }) => address)).toEqual([at('a')]);
  });
  it('takes in no more addresses than may be known, and of sitemaps only entries of known ones', async () => {
    const at = (path: string) => `https://full.example/${path}`;
    const { id, store, frontier } = await newCrawl(at(''), { knownLimit: 3 });
    await seedFrontier(store, [at('')], 0);
    const [start] = await frontier.take(0, 1, limits);
    const found = ['a', 'b', 'c'].map((path) => ({ address: at(path), rank: 1, hops: 0 }));
    const links = ['a', 'b', 'c'].map((path) => click(at(path)));
    await savePages(store, [pageAt(start, found, [...links, click('https://else.example/')])]);
    expect(await counts(id)).toMatchObject({ known: 3 });
    const entries = ['a', 'new'].map((path, i) => ({ loc: at(path), lastmod: null, line: i + 1 }));
    await saveListings(store, at('sitemap.xml'), entries, () => UNLINKED_RANK);
    const base = await readBase(test.db, (await getCrawl(test.db, id))!, 'limit');
    expect(base.count).toBe(3);
    // A link to what may not be known is none that leads off the site.
    const targets = [...base.links.target].map((target) => addressAt(base, target));
    expect(targets).toHaveLength(3);
    expect(targets.filter((target) => target.startsWith(at('')))).toHaveLength(2);
    expect(base.listings).toHaveLength(1);
  });
  it('gives no more than the limit of pages, whoever asks', async () => {
    const crawl = await newCrawl('https://limit.example/');
    await seedFrontier(
      crawl.store,
      Array.from({ length: 9 }, (_, i) => `https://limit.example/${i}`),
      0,
    );
    const other = frontierOf(test.db, crawl.id, await joinCrawl(test.db, crawl.id, 'other'));
    const taken = await Promise.all([crawl.frontier, other].map((one) => one.take(0, 3, { pages: 5, external: 0 })));
    expect(taken.flat()).toHaveLength(5);
    expect(new Set(taken.flat().map(({ urlId }) => urlId)).size).toBe(5);
    expect(await crawl.frontier.atLimit(5)).toBe(true);
  });
  it('is shared by workers that take, store and come and go at once, without a deadlock or a lost address', async () => {
    const crawl = await newCrawl('https://many.example/');
    const at = (n: number) => `https://many.example/${n}`;
    await seedFrontier(
      crawl.store,
      Array.from({ length: 60 }, (_, n) => at(n)),
      0,
    );
    const work = async (name: string) => {
      const worker = await joinCrawl(test.db, crawl.id, name);
      const store = openStore(test.db, crawl, worker);
      const frontier = frontierOf(test.db, crawl.id, worker);
      for (let queued = await frontier.take(0, 3, limits); queued.length; queued = await frontier.take(0, 3, limits)) {
        const found = queued.map(({ address }) => ({ address: `${address}/below`, rank: 1, hops: 0 }));
        // Half of what was taken is stored; the rest is free again when the worker leaves.
        await savePages(store, [pageAt(queued[0], [...found, { address: at(0), rank: 1, hops: 0 }])]);
        if (queued.length > 1) break;
      }
      await renewWorker(test.db, crawl.id, worker);
      await leaveCrawl(test.db, crawl.id, worker);
    };
    for (let round = 0; round < 40 && (await counts(crawl.id)).done < 60; round++)
      await Promise.all(Array.from({ length: 6 }, (_, i) => work(`w${round}-${i}`)));
    expect(await counts(crawl.id)).toMatchObject({ done: 60, known: 120 });
  });
});

it('a running crawl shows what waits, its outcomes, the newest pages, and that the site is closed', async () => {
  const at = (n: number) => `https://watch.example/${n}`;
  const crawl = await newCrawl('https://watch.example/');
  await seedFrontier(
    crawl.store,
    Array.from({ length: 7 }, (_, n) => at(n)),
    0,
  );
  await seedFrontier(crawl.store, [at(8)], UNLINKED_RANK);
  const urls = await crawl.frontier.take(0, 6, { pages: 100, external: 0 });
  const shut = { noindex: true, pageRules: 'meta robots: noindex (line 4)' };
  await savePages(
    crawl.store,
    urls.map((queued, n) => ({ ...pageAt(queued), ...shut, fetchedAt: new Date(n * 1000) })),
  );
  const watched = await watchCrawl(test.db, (await crawlState(test.db, crawl.id))!);
  expect(watched.waiting).toEqual([
    { what: { code: 'waiting_start' }, n: 1 },
    { what: { code: 'waiting_unlinked' }, n: 1 },
  ]);
  expect(watched.outcomes).toEqual([{ what: { code: 'outcome_status', status: 200 }, n: 6, bad: false }]);
  expect(watched.newest[0]).toMatchObject({ address: at(5), status: 200, blocked: false });
  expect(watched.warning).toEqual({ code: 'mostly_noindex', all: true, address: at(5), rules: shut.pageRules });
  expect([watched.workers, watched.traps]).toEqual([1, 0]);
});

describe('the sitemaps of a crawl', () => {
  it('wait to be read, each once, those before that fewer indexes lead to', async () => {
    const { store } = await newCrawl('https://index.example/');
    const at = (path: string) => `https://index.example/${path}`;
    await queueSitemaps(store, [at('index.xml')], { index: null, nesting: 0 });
    await queueSitemaps(store, [at('b.xml'), at('a.xml'), at('index.xml')], { index: at('index.xml'), nesting: 1 });
    const waiting = async () => (await nextSitemaps(store, 10)).map(({ address, index }) => [address, index]);
    expect(await waiting()).toEqual([
      [at('index.xml'), null],
      [at('b.xml'), at('index.xml')],
      [at('a.xml'), at('index.xml')],
    ]);
    const watched = await watchCrawl(test.db, { id: store.crawlId, done: 0 });
    expect(watched.waiting).toEqual([{ what: { code: 'waiting_sitemaps' }, n: 3 }]);
    const read = { entries: 7, skipped: 0, isFeed: false, fault: null, faultLine: null, answer: null };
    await saveSitemap(store, { ...read, address: at('b.xml'), index: at('index.xml') });
    expect((await waiting()).map(([address]) => address)).toEqual([at('index.xml'), at('a.xml')]);
    expect(await sitemapState(store)).toEqual({ waiting: 2, entries: 7 });
  });
  it('are as many as a crawl may have, however many indexes name', async () => {
    const { store } = await newCrawl('https://indexes.example/');
    const named = (from: number, n: number) =>
      Array.from({ length: n }, (_, i) => `https://indexes.example/${from + i}.xml`);
    const index = { index: 'https://indexes.example/sitemap.xml', nesting: 1 };
    for (let at = 0; at < 49_000; at += 7000) expect(await queueSitemaps(store, named(at, 7000), index)).toBe(0);
    expect(await queueSitemaps(store, named(49_000, 3000), index)).toBe(2000);
    expect(await queueSitemaps(store, named(90_000, 3000), index)).toBe(3000);
    expect(await sitemapState(store)).toMatchObject({ waiting: 50_000 });
  });
});
