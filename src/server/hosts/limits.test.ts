import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { testDatabase } from '../../../tests/support/database';
import type { TestDatabase } from '../../../tests/support/database';
import { backOff, hostLimits, recoveredDelay, reserveRequests } from '.';

let test: TestDatabase;
beforeAll(async () => (test = await testDatabase()));
afterAll(() => test.drop());
const limitOf = async (host: string) => (await hostLimits(test.db)).find((limit) => limit.host === host);
const complaint = (status: number) => ({ code: 'status', status, tries: 1 }) as const;

describe('the rate of a host', () => {
  it('is one for all who ask', async () => {
    const waits = [
      await reserveRequests(test.db, 'slow.example', 100, 3),
      await reserveRequests(test.db, 'slow.example', 100, 2),
    ].flat();
    // Some time passes between the two calls, which shortens what is left to wait.
    waits.forEach((wait, i) => expect(wait).toBeLessThanOrEqual(i * 100 + 1));
    expect(waits[3]).toBeGreaterThan(waits[2]);
    expect(await hostLimits(test.db)).toEqual([]);
  });
  it('is nothing while it asks for a pause', async () => {
    await backOff(test.db, 'busy.example', 60_000, 0, complaint(429));
    await backOff(test.db, 'busy.example', 10, 0, complaint(503));
    expect((await limitOf('busy.example'))!.wait).toBeGreaterThan(30_000);
    expect((await reserveRequests(test.db, 'busy.example', 10, 1))[0]).toBeGreaterThan(30_000);
  });
  it('falls once for each episode, however many requests were under way', async () => {
    const all = Array.from({ length: 16 }, () => backOff(test.db, 'storm.example', 30_000, 100, complaint(429)));
    expect(new Set(await Promise.all(all))).toEqual(new Set([200]));
    expect(await limitOf('storm.example')).toMatchObject({ reason: complaint(429) });
    // The next episode comes after the host was asked again.
    await test.db.$client.query(
      `update host_limit set next_at = current_timestamp(3) - interval 1 second,
         delay_at = current_timestamp(3) - interval 2 second where host = 'storm.example'`,
    );
    const next = await backOff(test.db, 'storm.example', 1000, 100, complaint(429));
    expect(next).toBeGreaterThan(200);
    expect(next).toBeLessThanOrEqual(400);
  });
  it('never gets slower than a request in five seconds', async () =>
    expect(await backOff(test.db, 'always.example', 1, 4000, complaint(503))).toBe(5000));
  it('grows by as much each second, until nothing is left of the delay', () => {
    expect(recoveredDelay(1000, 0)).toBe(1000);
    // One request a second, and half of one more for each second that passes.
    expect(recoveredDelay(1000, 2000)).toBe(500);
    expect(recoveredDelay(1000, 6000)).toBe(250);
    expect(recoveredDelay(1000, 3_600_000)).toBe(0);
    expect(recoveredDelay(0, 0)).toBe(0);
    fc.assert(
      fc.property(fc.double({ min: 200, max: 5000, noNaN: true }), fc.nat(1e6), fc.nat(1e6), (delay, a, b) => {
        const [early, late] = [Math.min(a, b), Math.max(a, b)];
        expect(recoveredDelay(delay, late)).toBeLessThanOrEqual(recoveredDelay(delay, early));
        expect(recoveredDelay(delay, early)).toBeLessThanOrEqual(delay);
      }),
    );
  });
});
