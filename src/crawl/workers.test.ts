/** Interruptions, and several workers on one crawl: nothing is lost, nothing is doubled. */
import { fork } from 'node:child_process';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { summarize } from '$core/formats';
import type { Message } from '$core/messages';
import {
  closeDatabase,
  getCrawl,
  leaseJob,
  openDatabase,
  prepareDatabase,
  requestCrawl,
  resumeCrawl,
  workerCount,
} from '$server/index';
import type { Database } from '$server/index';
import { crawling, csv, firstLease, tree, until } from '../../tests/support/crawling';
import { expireLease, storedPages, testDatabase } from '../../tests/support/database';
import type { TestDatabase } from '../../tests/support/database';
import { ownMariadb } from '../../tests/support/ownMariadb';
import { linking, standIn } from '../../tests/support/standIn';
import type { StandIn } from '../../tests/support/standIn';
import { helpWith, runCrawl } from '.';
import type { Interruption } from '.';

let test: TestDatabase;
let site: StandIn;
beforeAll(async () => (test = await testDatabase()));
afterAll(() => test.drop());
afterEach(() => site?.close());

const { begin, finish, crawl, snapshotOf } = crawling(() => test.db);
const signal = new AbortController().signal;

/** A worker as a process of its own. */
function worker(url: string) {
  const child = fork('build-node/main.cjs', ['worker'], {
    env: { ...process.env, DATABASE_URL: url },
    stdio: 'ignore',
  });
  const ended = new Promise((resolve) => child.once('exit', resolve));
  return {
    end: (how: 'SIGKILL' | 'SIGTERM') => {
      child.kill(how);
      return ended;
    },
  };
}

describe('a crawl that is interrupted', () => {
  it('by a person is shown as far as it came, and goes on to the same result', async () => {
    site = await standIn(tree(4));
    const whole = await crawl(`${site.origin}/`, { connections: 4 });
    expect(whole.snapshot.count).toBe(121);

    const id = await begin(`${site.origin}/`, { connections: 4 });
    const stop = new AbortController();
    const running = finish(id, stop.signal);
    await until(async () => (await getCrawl(test.db, id))!.done >= 20);
    stop.abort('stop' satisfies Interruption);
    const { ending, snapshot } = await running;
    expect(ending).toMatchObject({ state: 'stopped' });
    expect(csv(snapshot)).toContain('unvisited');

    await resumeCrawl(test.db, id);
    const again = await finish(id, signal, (await leaseJob(test.db, 'test'))!);
    expect(again.ending).toMatchObject({ state: 'done', reason: null });
    expect(csv(again.snapshot)).toBe(csv(whole.snapshot));
  });

  it('is paused until a person resumes it', async () => {
    site = await standIn(tree(4));
    const id = await begin(`${site.origin}/`, { connections: 4 });
    const running = runCrawl({ db: test.db, lease: firstLease(id), owner: 'test', allowPrivate: true, signal });
    await until(async () => (await getCrawl(test.db, id))!.done >= 10);
    await requestCrawl(test.db, id, 'pause');
    expect(await running).toBeNull();
    const paused = (await getCrawl(test.db, id))!;
    expect(paused).toMatchObject({ state: 'paused', request: null });
    expect(await leaseJob(test.db, 'test')).toBeNull();
    await resumeCrawl(test.db, id);
    const { ending, snapshot } = await finish(id, signal, (await leaseJob(test.db, 'test'))!);
    expect(ending).toMatchObject({ state: 'done' });
    expect(snapshot.count).toBe(121);
    expect(new Set(site.asked).size).toBeGreaterThan(121);
  });

  it('by a limit goes on when the limit is raised', async () => {
    site = await standIn(tree(4, 1));
    const { crawlId, ending, snapshot } = await crawl(`${site.origin}/`, { limit: 10 });
    expect(ending).toMatchObject({ state: 'done', limited: true });
    expect(summarize(snapshot).verdict.indexable).toBe(10);
    const { settings } = (await getCrawl(test.db, crawlId))!;
    await resumeCrawl(test.db, crawlId, { ...settings, limit: 50 });
    const more = await finish(crawlId, signal, (await leaseJob(test.db, 'test'))!);
    expect(more.ending).toMatchObject({ state: 'done', limited: true });
    expect(summarize(more.snapshot).verdict.indexable).toBe(50);
  });

  it('by ten kills of its worker ends with the same result', async () => {
    site = await standIn(tree(6, 20));
    const whole = await crawl(`${site.origin}/`, { connections: 4 });
    const id = await begin(`${site.origin}/`, { connections: 4 }, null);
    for (let kill = 0; kill < 10; kill++) {
      const before = await storedPages(test.db, id);
      const { end } = worker(test.url);
      await until(async () => (await storedPages(test.db, id)) >= before + 1);
      await end('SIGKILL');
      // The leases of the dead would run out by themselves; the test does not wait for it.
      await expireLease(test.db, id);
    }
    expect((await getCrawl(test.db, id))!.state).toBe('running');
    const { ending, snapshot } = await finish(id, signal, (await leaseJob(test.db, 'heir'))!);
    expect(ending).toMatchObject({ state: 'done' });
    expect(csv(snapshot)).toBe(csv(whole.snapshot));
    expect(await getCrawl(test.db, id)).toMatchObject({ known: 1093, done: 1093, asked: 1093 });
  });

  it('by a database that is restarted twice, once by force, ends with the same result', async () => {
    site = await standIn(tree(5, 30));
    const whole = await crawl(`${site.origin}/`, { connections: 4 });
    const mariadb = await ownMariadb();
    await prepareDatabase(mariadb.url);
    const db: Database = openDatabase(mariadb.url);
    try {
      const other = crawling(() => db);
      const id = await other.begin(`${site.origin}/`, { connections: 4 });
      const running = other.finish(id);
      for (const [how, from] of [
        ['SIGTERM', 60],
        ['SIGKILL', 200],
      ] as const) {
        await until(async () => (await storedPages(db, id)) >= from);
        await mariadb.restart(how);
      }
      const { ending, snapshot } = await running;
      expect(ending).toMatchObject({ state: 'done', reason: null });
      expect(csv(snapshot)).toBe(csv(whole.snapshot));
      expect(await getCrawl(db, id)).toMatchObject({ known: 364, done: 364, asked: 364 });
    } finally {
      await closeDatabase(db);
      await mariadb.remove();
    }
  });
});

describe('a crawl whose worker dies', () => {
  it('while it holds the start page begins anew', async () => {
    let asked = 0;
    site = await standIn((path) => {
      if (path !== '/') return path === '/a' ? linking('A') : undefined;
      const first = asked++ === 0;
      // The first one who asks is killed while it waits.
      return (_, response) =>
        void (first || response.setHeader('content-type', 'text/html').end(linking('Home', '/a')));
    });
    const id = await begin(`${site.origin}/`, {}, null);
    const { end } = worker(test.url);
    await until(() => asked > 0);
    await end('SIGKILL');
    await test.db.$client.query('update job set lease_until = current_timestamp(3) - interval 1 second');
    const heir = finish(id, signal, (await leaseJob(test.db, 'heir'))!);
    await until(async () => (await workerCount(test.db, id)) === 2);
    // What the dead one holds is free only once its own lease has run out.
    await test.db.$client.query(`update crawl_worker set lease_until = current_timestamp(3) - interval 1 second
      where crawl_id = ${id} and owner <> 'heir'`);
    const { ending, snapshot } = await heir;
    expect(ending).toMatchObject({ state: 'done', reason: null });
    expect(snapshot.count).toBe(2);
  });
});

describe('a crawl whose disk is nearly full', () => {
  it('fetches nothing, says so, and goes on to the same result when there is room', async () => {
    // Slow enough that the worker looks at the disk some times before it is done.
    site = await standIn(tree(5, 50));
    const whole = await crawl(`${site.origin}/`, { connections: 4 });
    const id = await begin(`${site.origin}/`, { connections: 4 });
    let full = false;
    const told: (Message | null)[] = [];
    const running = runCrawl({
      ...{ db: test.db, lease: firstLease(id), owner: 'test', allowPrivate: true, signal },
      trouble: async () => (full ? { code: 'disk_full', megabytes: 1, needed: 200 } : null),
      onProgress: ({ trouble }) => told.push(trouble),
    });
    await until(async () => (await getCrawl(test.db, id))!.done >= 10);
    full = true;
    await until(() => told.some((trouble) => trouble?.code === 'disk_full'));
    // What was under way is stored; then nothing more is asked for, however often it is looked.
    const [asked, beats] = [site.asked.length, told.length];
    await until(() => told.length >= beats + 3);
    expect(site.asked.length - asked).toBeLessThanOrEqual(4);
    expect((await getCrawl(test.db, id))!.state).toBe('running');
    full = false;
    expect(await running).toMatchObject({ state: 'done' });
    expect(csv((await snapshotOf(id))!)).toBe(csv(whole.snapshot));
  });
});

describe('two workers on one crawl', () => {
  it('end it with the same result as one, and ask for nothing twice', async () => {
    site = await standIn(tree(5, 20));
    const whole = await crawl(`${site.origin}/`, { connections: 8 });
    site.asked.length = 0;
    const id = await begin(`${site.origin}/`, { connections: 8 });
    const run = { db: test.db, allowPrivate: true, signal };
    const leading = runCrawl({ ...run, owner: 'test', lease: firstLease(id) });
    await until(async () => (await getCrawl(test.db, id))!.state === 'running');
    const helping = helpWith({ ...run, owner: 'helper' }, id);
    await until(async () => (await workerCount(test.db, id)) === 2);
    expect(await leading).toMatchObject({ state: 'done' });
    await helping;
    expect(csv((await snapshotOf(id))!)).toBe(csv(whole.snapshot));
    const pages = site.asked.filter((path) => path !== '/robots.txt');
    expect(new Set(pages).size).toBe(pages.length);
  });

  it('stop together, and whoever helps leaves when the other is gone', async () => {
    site = await standIn(tree(5, 30));
    const id = await begin(`${site.origin}/`, { connections: 4 }, null);
    const [one, two] = [worker(test.url), worker(test.url)];
    try {
      await until(async () => (await workerCount(test.db, id)) === 2);
      await requestCrawl(test.db, id, 'stop');
      await until(async () => (await getCrawl(test.db, id))!.state === 'stopped');
      expect(await workerCount(test.db, id)).toBe(0);
      const { done } = (await getCrawl(test.db, id))!;
      expect(await storedPages(test.db, id)).toBe(done);
    } finally {
      await Promise.all([one.end('SIGTERM'), two.end('SIGTERM')]);
    }
  });
});
