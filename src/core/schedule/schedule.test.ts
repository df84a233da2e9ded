import fc from 'fast-check';
import { expect, it } from 'vitest';
import { comingRuns, everyNames, LAST_DAY, nextRun, scheduleSchema, zones } from '.';

const runs = (schedule: Parameters<typeof comingRuns>[0], after: string, count = 3) =>
  comingRuns(schedule, new Date(after), count).map((at) => at.toISOString());

it('is daily, weekly or monthly, by the clock of its zone', () => {
  expect(runs({ every: 'day', at: '03:30', day: 0, zone: 'Europe/Berlin' }, '2026-10-24T12:00:00Z')).toEqual([
    // The clocks change in the night of the first one.
    '2026-10-25T02:30:00.000Z',
    '2026-10-26T02:30:00.000Z',
    '2026-10-27T02:30:00.000Z',
  ]);
  expect(runs({ every: 'week', at: '22:00', day: 1, zone: 'UTC' }, '2026-11-28T00:00:00Z', 2)).toEqual([
    '2026-11-30T22:00:00.000Z',
    '2026-12-07T22:00:00.000Z',
  ]);
  expect(runs({ every: 'month', at: '00:05', day: LAST_DAY, zone: 'UTC' }, '2027-01-31T12:00:00Z')).toEqual([
    '2027-02-28T00:05:00.000Z',
    '2027-03-31T00:05:00.000Z',
    '2027-04-30T00:05:00.000Z',
  ]);
});
it('always comes after what it follows', () =>
  fc.assert(
    fc.property(
      fc.constantFrom(...everyNames),
      fc.nat(6),
      fc.nat(23),
      fc.constantFrom('UTC', 'Europe/Berlin', 'America/St_Johns', 'Pacific/Apia'),
      fc.date({ min: new Date('2026-01-01'), max: new Date('2030-01-01'), noInvalidDate: true }),
      (every, day, hour, zone, after) => {
        const next = nextRun({ every, day, at: `${String(hour).padStart(2, '0')}:15`, zone }, after);
        expect(next.getTime()).toBeGreaterThan(after.getTime());
      },
    ),
  ));
it('refuses what is no time and no zone', () => {
  const good = { every: 'day', at: '03:30', day: 0, zone: 'UTC' };
  expect(scheduleSchema.safeParse(good).success).toBe(true);
  for (const wrong of [{ at: '24:00' }, { at: '3:30' }, { zone: 'Europe/Larkfield' }, { every: 'hour' }, { day: 31 }])
    expect(scheduleSchema.safeParse({ ...good, ...wrong }).success).toBe(false);
  expect(zones()).toContain('Europe/Berlin');
});
