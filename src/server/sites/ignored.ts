/** Findings that a site ignores, with the reason that somebody gave. */
import { and, asc, eq, getTableColumns } from 'drizzle-orm';
import type { IgnoredFinding } from '$core/findings';
import type { Database } from '../database';
import { ignoredFinding } from '../database/schema';

const { siteId: _site, ...columns } = getTableColumns(ignoredFinding);
export type Ignored = Omit<typeof ignoredFinding.$inferSelect, 'siteId'>;

/** What a site ignores, the oldest first. */
export const ignoredFindings = (db: Database, siteId: number): Promise<Ignored[]> =>
  db.select(columns).from(ignoredFinding).where(eq(ignoredFinding.siteId, siteId)).orderBy(asc(ignoredFinding.id));

/** Ignores a finding from now on, in all crawls of the site. @returns its number, to undo it by */
export async function ignoreFinding(
  db: Database,
  siteId: number,
  ignored: IgnoredFinding & { reason: string },
): Promise<number> {
  const [{ id }] = await db
    .insert(ignoredFinding)
    .values({ siteId, ...ignored })
    .$returningId();
  return id;
}

/** Reports a finding again. */
export const reportAgain = async (db: Database, siteId: number, id: number): Promise<void> =>
  void (await db.delete(ignoredFinding).where(and(eq(ignoredFinding.siteId, siteId), eq(ignoredFinding.id, id))));
