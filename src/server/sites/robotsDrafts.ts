/** Versions of robots.txt that a person has drafted, by name. */
import { and, desc, eq, getTableColumns } from 'drizzle-orm';
import type { Database } from '../database';
import { robotsDraft } from '../database/schema';

const { siteId: _site, body: _body, ...columns } = getTableColumns(robotsDraft);
export type RobotsDraft = Omit<typeof robotsDraft.$inferSelect, 'siteId' | 'body'>;

/** The versions of a site, the newest first, without their text. */
export const robotsDrafts = (db: Database, siteId: number): Promise<RobotsDraft[]> =>
  db.select(columns).from(robotsDraft).where(eq(robotsDraft.siteId, siteId)).orderBy(desc(robotsDraft.id));

const ofSite = (siteId: number, id: number) => and(eq(robotsDraft.siteId, siteId), eq(robotsDraft.id, id));

/** The text of a version; null when the site has no such version. */
export async function robotsDraftBody(db: Database, siteId: number, id: number): Promise<string | null> {
  const [found] = await db.select({ body: robotsDraft.body }).from(robotsDraft).where(ofSite(siteId, id));
  return found?.body ?? null;
}

/** Saves a version. @returns its number */
export async function saveRobotsDraft(
  db: Database,
  siteId: number,
  draft: Pick<RobotsDraft, 'origin' | 'name' | 'note'> & { body: string },
): Promise<number> {
  const [{ id }] = await db
    .insert(robotsDraft)
    .values({ siteId, ...draft })
    .$returningId();
  return id;
}

export const deleteRobotsDraft = async (db: Database, siteId: number, id: number): Promise<void> =>
  void (await db.delete(robotsDraft).where(ofSite(siteId, id)));
