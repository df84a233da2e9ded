/** When a site is crawled by itself. */
import { Cron } from 'croner';
import { z } from '../schema';

export const everyNames = ['day', 'week', 'month'] as const;
/** Stands for the last day of a month, whichever that is. */
export const LAST_DAY = 0;

/** The names of time zones (IANA); an unknown one is refused. */
export const zones = (): readonly string[] => [
  'UTC',
  ...Intl.supportedValuesOf('timeZone').filter((zone) => zone !== 'UTC'),
];

const isZone = (zone: string) => {
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
    return true;
  } catch {
    return false;
  }
};

export const scheduleSchema = z.object({
  every: z.enum(everyNames),
  /** `HH:MM` by the clock of the zone. */
  at: z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'A time is written as 03:30.'),
  /** Of a week 0 to 6, from Sunday; of a month 1 to 28, or 0 for its last day; of a day without meaning. */
  day: z.number().int().min(0).max(28),
  zone: z.string().refine(isZone, 'There is no such time zone.'),
});
export type Schedule = z.infer<typeof scheduleSchema>;

/** The schedule in the notation of crontab(5), with `L` for the last day of a month. */
function patternOf({ every, at, day }: Schedule): string {
  const [hour, minute] = at.split(':').map(Number);
  const ofMonth = every === 'month' ? (day === LAST_DAY ? 'L' : String(day)) : '*';
  const ofWeek = every === 'week' ? String(day % 7) : '*';
  return `${minute} ${hour} ${ofMonth} * ${ofWeek}`;
}

/**
 * The next moments of a schedule after another one. A time that a change of clocks leaves out is met as soon as it is
 * over.
 */
export const comingRuns = (schedule: Schedule, after: Date, count: number): Date[] =>
  new Cron(patternOf(schedule), { timezone: schedule.zone, paused: true }).nextRuns(count, after);

/** The next moment of a schedule. */
export const nextRun = (schedule: Schedule, after: Date): Date => comingRuns(schedule, after, 1)[0];
