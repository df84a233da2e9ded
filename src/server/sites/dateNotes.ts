/** What people have noted on dates of a site, such as a relaunch. */
import { and, asc, eq, getTableColumns } from 'drizzle-orm';
import type { Database } from '../database';
import { dateNote } from '../database/schema';

const { siteId: _site, ...columns } = getTableColumns(dateNote);
export type DateNote = Omit<typeof dateNote.$inferSelect, 'siteId'>;

/** The notes of a site, by date. */
export const dateNotes = (db: Database, siteId: number): Promise<DateNote[]> =>
  db.select(columns).from(dateNote).where(eq(dateNote.siteId, siteId)).orderBy(asc(dateNote.day), asc(dateNote.id));

/**
 * Writes a note, or another text or date for one that is there.
 * @returns its number; null when the site has no such note
 */
export async function saveDateNote(
  db: Database,
  siteId: number,
  { id, ...note }: Omit<DateNote, 'id'> & { id: number | null },
): Promise<number | null> {
  if (id === null) {
    const [made] = await db
      .insert(dateNote)
      .values({ siteId, ...note })
      .$returningId();
    return made.id;
  }
  const where = and(eq(dateNote.siteId, siteId), eq(dateNote.id, id));
  await db.update(dateNote).set(note).where(where);
  const [found] = await db.select({ id: dateNote.id }).from(dateNote).where(where);
  return found?.id ?? null;
}

export const deleteDateNote = async (db: Database, siteId: number, id: number): Promise<void> =>
  void (await db.delete(dateNote).where(and(eq(dateNote.siteId, siteId), eq(dateNote.id, id))));
