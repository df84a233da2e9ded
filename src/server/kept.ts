/** Selections that are kept under a name, for everybody who works on a site. */
import { and, asc, eq } from 'drizzle-orm';
import type { Database } from './database';
import { keptSelection } from './schema';

export interface KeptSelection {
  name: string;
  over: 'pages' | 'links';
  text: string;
}

/** The selections that are kept of a site, by name. */
export const keptSelections = (db: Database, siteId: number): Promise<KeptSelection[]> =>
  db
    .select({ name: keptSelection.name, over: keptSelection.over, text: keptSelection.text })
    .from(keptSelection)
    .where(eq(keptSelection.siteId, siteId))
    .orderBy(asc(keptSelection.name));

/** Keeps a selection, in place of one of the same name. */
export const keepSelection = async (db: Database, siteId: number, kept: KeptSelection): Promise<void> => {
  const { over, text } = kept;
  await db
    .insert(keptSelection)
    .values({ siteId, ...kept })
    .onDuplicateKeyUpdate({ set: { over, text } });
};

export const forgetSelection = async (db: Database, siteId: number, name: string): Promise<void> => {
  await db.delete(keptSelection).where(and(eq(keptSelection.siteId, siteId), eq(keptSelection.name, name)));
};
