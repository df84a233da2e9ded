import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { settingsSchema } from '$core/settings';
import type { CrawlSettings } from '$core/settings';
import { expireLease, testDatabase } from '../../../tests/support/database';
import type { TestDatabase } from '../../../tests/support/database';
import { firstLease } from '../../../tests/support/crawling';
import {
  addCrawl,
  crawlState,
  endAnalysis,
  endCrawl,
  getCrawl,
  helpableCrawl,
  isLed,
  joinCrawl,
  leaseAnalysis,
  leaseJob,
  LostLease,
  markStarted,
  releaseCrawl,
  renewLease,
  requestAnalysis,
  requestCrawl,
  resumeCrawl,
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
    expect(await leaseAnalysis(test.db, id, 'a')).toBeNull();
    await endCrawl(test.db, firstLease(id), done);
    await Promise.all([requestAnalysis(test.db, id), requestAnalysis(test.db, id)]);
    const leases = await Promise.all(['a', 'b'].map((owner) => leaseAnalysis(test.db, id, owner)));
    const [lease] = leases.filter((one) => one !== null);
    expect(leases.filter(Boolean)).toHaveLength(1);
    expect(lease).toMatchObject({ crawlId: id, kind: 'analysis', number: 2 });
    await endAnalysis(test.db, lease);
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
      analysis: () => endAnalysis(test.db, first),
    };
    for (const [name, write] of Object.entries(late)) await expect(write(), name).rejects.toThrow(LostLease);

    expect(await crawlState(test.db, id)).toMatchObject({ state: 'running', reason: null, rank: 3, endedAt: null });
    expect((await readPart(test.db, id, 'head'))!.toString()).toBe('of the other');
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
    await expect(endCrawl(test.db, first, done)).rejects.toThrow(LostLease);
    await endCrawl(test.db, second, done);
    await expect(endCrawl(test.db, second, done)).rejects.toThrow(LostLease);
  });
});
