/** Selections that are saved under a name, for everybody who works on a site. */
import { and, asc, eq } from 'drizzle-orm';
import type { Database } from '../database';
import { savedSelection } from '../database/schema';

export interface SavedSelection {
  name: string;
  over: 'pages' | 'links';
  text: string;
}

/** The saved selections of a site, by name. */
export const savedSelections = (db: Database, siteId: number): Promise<SavedSelection[]> =>
  db
    .select({ name: savedSelection.name, over: savedSelection.over, text: savedSelection.text })
    .from(savedSelection)
    .where(eq(savedSelection.siteId, siteId))
    .orderBy(asc(savedSelection.name));

/** Saves a selection, in place of one of the same name. */
export const saveSelection = async (db: Database, siteId: number, selection: SavedSelection): Promise<void> => {
  const { over, text } = selection;
  await db
    .insert(savedSelection)
    .values({ siteId, ...selection })
    .onDuplicateKeyUpdate({ set: { over, text } });
};

export const deleteSelection = async (db: Database, siteId: number, name: string): Promise<void> => {
  await db.delete(savedSelection).where(and(eq(savedSelection.siteId, siteId), eq(savedSelection.name, name)));
};
