/** Crawls that begin by themselves. */
import { and, eq, inArray, isNull, lte, sql } from 'drizzle-orm';
import { nextRun } from '$core/schedule';
import type { Schedule } from '$core/schedule';
import { addCrawl } from '../crawls';
import type { Database } from '../database';
import { crawl, schedule, site } from '../database/schema';

export interface SiteSchedule extends Schedule {
  paused: boolean;
  /** When it is due next. */
  nextAt: Date;
}

/** The schedule of a site; null when it has none. */
export async function scheduleOf(db: Database, siteId: number): Promise<SiteSchedule | null> {
  const { every, at, day, zone, paused, nextAt } = schedule;
  const [row] = await db
    .select({ every, at, day, zone, paused, nextAt })
    .from(schedule)
    .where(eq(schedule.siteId, siteId));
  return row ?? null;
}

/**
 * Gives a site a schedule, in place of the one it has. What would have been due while it is paused is not caught up.
 */
export async function saveSchedule(
  db: Database,
  siteId: number,
  given: Schedule & { paused: boolean },
  now = new Date(),
): Promise<void> {
  const set = { ...given, nextAt: nextRun(given, now) };
  await db
    .insert(schedule)
    .values({ siteId, ...set })
    .onDuplicateKeyUpdate({ set });
}

export const stopSchedule = async (db: Database, siteId: number): Promise<void> =>
  void (await db.delete(schedule).where(eq(schedule.siteId, siteId)));

const isOpen = inArray(crawl.state, ['waiting', 'running', 'paused']);

/**
 * Adds the crawls that are due: one for each site, however many runs were missed, and none where a crawl of the site
 * has not ended yet. Several workers may ask at once; each run is taken by one of them.
 * @returns the crawls that were added
 */
export async function startDue(db: Database, now = new Date()): Promise<number[]> {
  const due = await db
    .select()
    .from(schedule)
    .where(and(eq(schedule.paused, false), lte(schedule.nextAt, now)));
  const added: number[] = [];
  for (const { siteId, nextAt, ...given } of due) {
    const id = await db.transaction(async (tx) => {
      const [{ affectedRows }] = await tx
        .update(schedule)
        .set({ nextAt: nextRun(given, now) })
        .where(and(eq(schedule.siteId, siteId), eq(schedule.nextAt, nextAt)));
      if (affectedRows === 0) return null;
      const [own] = await tx
        .select({ settings: site.settings })
        .from(site)
        .where(and(eq(site.id, siteId), isNull(site.deletedAt)));
      const [{ open }] = await tx
        .select({ open: sql<number>`count(*)` })
        .from(crawl)
        .where(and(eq(crawl.siteId, siteId), isOpen, isNull(crawl.deletedAt)));
      return own && Number(open) === 0 ? addCrawl(tx, siteId, own.settings) : null;
    });
    if (id !== null) added.push(id);
  }
  return added;
}
