/** The structure that a site is meant to have, as a person has written it. */
import { eq } from 'drizzle-orm';
import type { Database } from '../database';
import { meantStructure } from '../database/schema';

/** '' where nobody has written one. */
export const meantStructureOf = async (db: Database, siteId: number): Promise<string> =>
  (await db.select({ text: meantStructure.text }).from(meantStructure).where(eq(meantStructure.siteId, siteId)))[0]
    ?.text ?? '';

export const saveMeantStructure = async (db: Database, siteId: number, text: string): Promise<void> =>
  void (await db.insert(meantStructure).values({ siteId, text }).onDuplicateKeyUpdate({ set: { text } }));
