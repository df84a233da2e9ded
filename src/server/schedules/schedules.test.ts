import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { nextRun } from '$core/schedule';
import { settingsSchema } from '$core/settings';
import { testDatabase } from '../../../tests/support/database';
import type { TestDatabase } from '../../../tests/support/database';
import { crawlsOf, saveSchedule, saveSite, scheduleOf, startDue, stopSchedule } from '..';
import { crawl, job } from '../database/schema';

let test: TestDatabase;
beforeAll(async () => (test = await testDatabase()));
afterAll(() => test.drop());

const settingsOf = (start: string) => settingsSchema.parse({ start });
const site = (name: string) => saveSite(test.db, settingsOf(`https://${name}.example/`));
const nightly = { every: 'day', at: '03:00', day: 0, zone: 'UTC', paused: false } as const;
const at = (text: string) => new Date(`${text}Z`);
const end = async (id: number) => {
  await test.db.update(job).set({ state: 'done' }).where(eq(job.crawlId, id));
  await test.db.update(crawl).set({ state: 'done' }).where(eq(crawl.id, id));
};

describe('a schedule', () => {
  it('adds a crawl when it is due, and catches up what was missed once', async () => {
    const id = await site('nightly');
    await saveSchedule(test.db, id, nightly, at('2026-11-01T12:00'));
    expect((await scheduleOf(test.db, id))!.nextAt).toEqual(at('2026-11-02T03:00'));
    expect(await startDue(test.db, at('2026-11-02T02:59'))).toEqual([]);
    // The machine was off for five nights.
    const added = await startDue(test.db, at('2026-11-07T09:00'));
    expect(added).toHaveLength(1);
    expect((await scheduleOf(test.db, id))!.nextAt).toEqual(at('2026-11-08T03:00'));
    expect(await startDue(test.db, at('2026-11-07T09:00'))).toEqual([]);
    // The crawl still waits: the next run is left out, and the one after it is not.
    expect(await startDue(test.db, at('2026-11-08T03:00'))).toEqual([]);
    await end(added[0]);
    expect(await startDue(test.db, at('2026-11-09T03:00'))).toHaveLength(1);
  });
  it('is met by one of several workers', async () => {
    const id = await site('many');
    await saveSchedule(test.db, id, nightly, at('2026-11-01T12:00'));
    const all = await Promise.all(Array.from({ length: 6 }, () => startDue(test.db, at('2026-11-02T03:00'))));
    expect(all.flat()).toHaveLength(1);
    expect(await crawlsOf(test.db, id)).toHaveLength(1);
  });
  it('can be paused, goes on with its next run, and can be stopped', async () => {
    const id = await site('paused');
    await saveSchedule(test.db, id, { ...nightly, paused: true }, at('2026-11-01T12:00'));
    expect(await startDue(test.db, at('2026-11-05T04:00'))).toEqual([]);
    await saveSchedule(test.db, id, nightly, at('2026-11-05T04:00'));
    expect((await scheduleOf(test.db, id))!.nextAt).toEqual(nextRun(nightly, at('2026-11-05T04:00')));
    await stopSchedule(test.db, id);
    expect(await scheduleOf(test.db, id)).toBeNull();
  });
});
