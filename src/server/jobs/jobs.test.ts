import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { settingsSchema } from '$core/settings';
import type { CrawlSettings } from '$core/settings';
import { expireLease, testDatabase } from '../../../tests/support/database';
import type { TestDatabase } from '../../../tests/support/database';
import { firstLease } from '../../../tests/support/crawling';
import {
  addCrawl,
  crawlState,
  crawlTrouble,
  endJob,
  endCrawl,
  getCrawl,
  helpableCrawl,
  isLed,
  joinCrawl,
  leaseWaiting,
  leaseJob,
  markStarted,
  releaseCrawl,
  releaseDead,
  renewLease,
  requestAnalysis,
  requestCrawl,
  resumeCrawl,
  sayAlive,
  sayGone,
  saveSite,
  setRank,
  storeSnapshot,
  workerCount,
} from '..';
import type { Lease } from '..';
import { readPart } from '../snapshots/parts';

let test: TestDatabase;
beforeAll(async () => (test = await testDatabase()));
afterAll(() => test.drop());

async function waiting(host: string, owner?: string): Promise<{ id: number; settings: CrawlSettings }> {
  const settings = settingsSchema.parse({ start: `https://${host}.example/` });
  return { id: await addCrawl(test.db, await saveSite(test.db, settings), settings, owner), settings };
}
const done = { state: 'done', reason: null, limited: false } as const;

describe('jobs', () => {
  it('go to one worker only, and to another when a lease runs out', async () => {
    const { id, settings } = await waiting('jobs');
    const leases = (await Promise.all(['a', 'b', 'c'].map((owner) => leaseJob(test.db, owner)))).filter(Boolean);
    expect(leases).toHaveLength(1);
    const [first] = leases as [Lease];
    expect(first).toMatchObject({ crawlId: id, kind: 'crawl', number: 1 });
    expect(await renewLease(test.db, first)).toBe(true);
    expect(await isLed(test.db, id)).toBe(true);
    await expireLease(test.db, id);
    expect(await isLed(test.db, id)).toBe(false);
    const second = (await leaseJob(test.db, 'd'))!;
    expect(second).toMatchObject({ crawlId: id, number: 2 });
    expect(await renewLease(test.db, first)).toBe(false);
    await requestCrawl(test.db, id, 'stop');
    expect((await crawlState(test.db, id))!.request).toBe('stop');
    await releaseCrawl(test.db, second, 'waiting');
    const third = (await leaseJob(test.db, 'e'))!;
    await endCrawl(test.db, third, { state: 'stopped', reason: { code: 'stopped' }, limited: false });
    expect(await crawlState(test.db, id)).toMatchObject({ state: 'stopped', reason: { code: 'stopped' } });
    expect(await leaseJob(test.db, 'f')).toBeNull();
    await resumeCrawl(test.db, id, { ...settings, limit: 7 });
    expect(await getCrawl(test.db, id)).toMatchObject({
      state: 'waiting',
      reason: null,
      request: null,
      settings: { limit: 7 },
    });
    await endCrawl(test.db, (await leaseJob(test.db, 'g'))!, done);
  });
  it('that are paused wait for a person', async () => {
    const { id } = await waiting('pause');
    await requestCrawl(test.db, id, 'pause');
    expect(await crawlState(test.db, id)).toMatchObject({ state: 'paused', request: null });
    expect(await leaseJob(test.db, 'a')).toBeNull();
    await resumeCrawl(test.db, id);
    await endCrawl(test.db, (await leaseJob(test.db, 'a'))!, done);
  });
  it('analyse an ended crawl anew when they are asked to, once', async () => {
    const { id } = await waiting('anew', 'test');
    await requestAnalysis(test.db, id);
    expect(await leaseWaiting(test.db, id, 'analysis', 'a')).toBeNull();
    await endCrawl(test.db, firstLease(id), done);
    await Promise.all([requestAnalysis(test.db, id), requestAnalysis(test.db, id)]);
    const leases = await Promise.all(['a', 'b'].map((owner) => leaseWaiting(test.db, id, 'analysis', owner)));
    const [lease] = leases.filter((one) => one !== null);
    expect(leases.filter(Boolean)).toHaveLength(1);
    expect(lease).toMatchObject({ crawlId: id, kind: 'analysis', number: 2 });
    await endJob(test.db, lease);
    expect(await leaseJob(test.db, 'c')).toBeNull();
    expect((await crawlState(test.db, id))!.state).toBe('done');
  });
  it('are helped with by others only when a worker leads them', async () => {
    const add = async (host: string, owner: string) => {
      const { id } = await waiting(host, owner);
      const lease = firstLease(id, owner);
      await markStarted(test.db, lease);
      return lease;
    };
    const terminal = await add('terminal', 'terminal:x');
    expect(await helpableCrawl(test.db, 'worker:')).toBeNull();
    const led = await add('led', 'worker:x');
    expect(await helpableCrawl(test.db, 'worker:')).toBe(led.crawlId);
    await expireLease(test.db, led.crawlId);
    expect(await helpableCrawl(test.db, 'worker:')).toBeNull();
    for (const lease of [terminal, led]) await endCrawl(test.db, lease, done);
  });
});

describe('a crawl with which workers die', () => {
  const die = async (id: number) => {
    const lease = await leaseJob(test.db, 'doomed');
    await expireLease(test.db, id);
    return lease;
  };
  const storePage = (id: number) => test.db.$client.query('update crawl set done = done + 1 where id = ?', [id]);

  it('is set aside after the third in a row, with the reason, and the next one runs', async () => {
    const { id } = await waiting('deadly');
    const next = await waiting('harmless');
    for (let i = 0; i < 3; i++) expect(await die(id)).toMatchObject({ crawlId: id });
    const lease = await leaseJob(test.db, 'heir');
    expect(lease).toMatchObject({ crawlId: next.id });
    expect(await crawlState(test.db, id)).toMatchObject({
      state: 'failed',
      reason: { code: 'workers_died', times: 3, during: 'crawl' },
    });
    await endCrawl(test.db, lease!, done);
    // A person may try again, as often as before.
    await resumeCrawl(test.db, id);
    for (let i = 0; i < 2; i++) expect(await die(id)).toMatchObject({ crawlId: id });
    await endCrawl(test.db, (await leaseJob(test.db, 'heir'))!, done);
  });
  it('goes on for as long as pages are stored in between, or workers leave in good order', async () => {
    const { id } = await waiting('slow');
    for (let i = 0; i < 5; i++) {
      expect(await die(id)).toMatchObject({ crawlId: id });
      await storePage(id);
    }
    for (let i = 0; i < 5; i++) await releaseCrawl(test.db, (await leaseJob(test.db, 'polite'))!, 'waiting');
    await endCrawl(test.db, (await leaseJob(test.db, 'heir'))!, done);
  });
  it('is set aside likewise when it is its analysis, and not analysed again by itself', async () => {
    const { id } = await waiting('analysed', 'test');
    await endCrawl(test.db, firstLease(id), done);
    await requestAnalysis(test.db, id);
    for (let i = 0; i < 3; i++) expect(await die(id)).toMatchObject({ crawlId: id, kind: 'analysis' });
    expect(await leaseJob(test.db, 'heir')).toBeNull();
    expect(await crawlState(test.db, id)).toMatchObject({ state: 'done', reason: { during: 'analysis' } });
    await requestAnalysis(test.db, id);
    expect(await leaseJob(test.db, 'heir')).toBeNull();
  });
  it('gives back what is held by workers that no longer exist when it is taken up', async () => {
    const { id } = await waiting('orphaned', 'test');
    await test.db.$client.query(
      'insert into frontier (crawl_id, url_id, rank, hops, held_by) values (?, 1, 0, 0, 999)',
      [id],
    );
    await test.db.$client.query('update crawl set asked = 1 where id = ?', [id]);
    await markStarted(test.db, firstLease(id));
    const [held] = await test.db.$client.query('select held_by from frontier where crawl_id = ?', [id]);
    expect(held).toEqual([{ held_by: null }]);
    expect((await getCrawl(test.db, id))!.asked).toBe(0);
    await endCrawl(test.db, firstLease(id), done);
  });
});

describe('what keeps a crawl from going on is told', () => {
  const silent = (id: number, seconds: number) =>
    test.db.$client.query('update job set lease_until = lease_until - interval ? second where crawl_id = ?', [
      seconds,
      id,
    ]);

  it('when no worker is alive, when its own has gone silent, when one was started again', async () => {
    const { id } = await waiting('trouble');
    expect(await crawlTrouble(test.db, id)).toEqual({ code: 'no_worker' });
    await sayAlive(test.db, 'worker:here:1:a', 0);
    expect(await crawlTrouble(test.db, id)).toBeNull();
    const lease = (await leaseJob(test.db, 'worker:here:2:b'))!;
    await sayGone(test.db, 'worker:here:1:a');
    expect(await crawlTrouble(test.db, id)).toBeNull();
    await silent(id, 10);
    expect(await crawlTrouble(test.db, id)).toEqual({ code: 'no_worker' });
    await sayAlive(test.db, 'worker:here:3:c', 2);
    expect(await crawlTrouble(test.db, id)).toMatchObject({ code: 'leader_gone' });
    await renewLease(test.db, lease);
    expect(await crawlTrouble(test.db, id)).toMatchObject({ code: 'worker_restarted' });
    await endCrawl(test.db, lease, done);
    expect(await crawlTrouble(test.db, id)).toBeNull();
    await sayGone(test.db, 'worker:here:3:c');
  });
  it('and whoever is known to be dead is not waited for', async () => {
    const { id } = await waiting('dead');
    const lease = (await leaseJob(test.db, 'worker:here:12:a'))!;
    await releaseDead(test.db, 'worker:here:1:');
    expect(await leaseJob(test.db, 'heir')).toBeNull();
    await releaseDead(test.db, 'worker:here:12:');
    const heir = (await leaseJob(test.db, 'heir'))!;
    expect(heir).toMatchObject({ crawlId: id, number: lease.number + 1 });
    await endCrawl(test.db, heir, done);
  });
});

describe('a worker whose lease ran out while it slept', () => {
  const parts = (text: string) => new Map([['head', Buffer.from(text)]]);

  it('changes nothing once another one has leased the job, whatever it was about to write', async () => {
    const { id } = await waiting('fenced');
    const first = (await leaseJob(test.db, 'sleeper'))!;
    await markStarted(test.db, first);
    await expireLease(test.db, id);
    const second = (await leaseJob(test.db, 'other'))!;
    await markStarted(test.db, second);
    await joinCrawl(test.db, id, 'other');
    await setRank(test.db, second, 3);
    await storeSnapshot(test.db, second, parts('of the other'));

    const late: Record<string, () => Promise<unknown>> = {
      start: () => markStarted(test.db, first),
      rank: () => setRank(test.db, first, 0),
      snapshot: () => storeSnapshot(test.db, first, parts('of the sleeper')),
      release: () => releaseCrawl(test.db, first, 'waiting'),
      end: () => endCrawl(test.db, first, { state: 'failed', reason: { code: 'internal' }, limited: false }),
      analysis: () => endJob(test.db, first),
    };
    for (const [name, write] of Object.entries(late))
      await expect(write(), name).rejects.toMatchObject({ code: 'lease_lost' });

    expect(await crawlState(test.db, id)).toMatchObject({ state: 'running', reason: null, rank: 3, endedAt: null });
    expect((await readPart(test.db, (await crawlState(test.db, id))!, 'head'))!.toString()).toBe('of the other');
    // The workers of the one that leads are still at work, under its lease.
    expect(await workerCount(test.db, id)).toBe(1);
    expect(await renewLease(test.db, second)).toBe(true);
    await endCrawl(test.db, second, done);
  });
  it('is fenced by the number of its lease, though the same worker has leased the job again', async () => {
    const { id } = await waiting('again');
    const first = (await leaseJob(test.db, 'w'))!;
    await expireLease(test.db, id);
    const second = (await leaseJob(test.db, 'w'))!;
    await expect(endCrawl(test.db, first, done)).rejects.toMatchObject({ code: 'lease_lost' });
    await endCrawl(test.db, second, done);
    await expect(endCrawl(test.db, second, done)).rejects.toMatchObject({ code: 'lease_lost' });
  });
});
