/** Pages that a person has marked as those that matter most to a site, over all its crawls. */
import { and, asc, eq, inArray, sql, TransactionRollbackError } from 'drizzle-orm';
import { hashOf } from '../database';
import type { Database } from '../database';
import { crawl, keyPage } from '../database/schema';

/** A few pages matter more than all others: when all do, none does. */
export const MOST_KEY_PAGES = 1000;

/** The key pages of the site of a crawl. */
export const keyPagesOf = (db: Database, crawlId: number): Promise<{ id: number; address: string }[]> =>
  db
    .select({ id: keyPage.id, address: keyPage.address })
    .from(keyPage)
    .innerJoin(crawl, eq(crawl.siteId, keyPage.siteId))
    .where(eq(crawl.id, crawlId))
    .orderBy(asc(keyPage.id));

/**
 * Marks pages of a site as key pages, or no longer.
 * @returns false when there would be too many; then nothing is changed
 */
export const markKeyPages = (
  db: Database,
  siteId: number,
  addresses: readonly string[],
  isKey: boolean,
): Promise<boolean> =>
  db
    .transaction(async (tx) => {
      const rows = [...new Set(addresses)].map((one) => ({ siteId, address: one, addressHash: hashOf(one) }));
      if (rows.length === 0) return true;
      const hashes = rows.map(({ addressHash }) => addressHash);
      const ofSite = eq(keyPage.siteId, siteId);
      await tx.delete(keyPage).where(and(ofSite, inArray(keyPage.addressHash, hashes)));
      if (!isKey) return true;
      const [{ known }] = await tx
        .select({ known: sql<number>`count(*)`.mapWith(Number) })
        .from(keyPage)
        .where(ofSite);
      // Rolled back by this, so that those that were marked before stay so.
      if (known + rows.length > MOST_KEY_PAGES) tx.rollback();
      await tx.insert(keyPage).values(rows);
      return true;
    })
    .catch((error: unknown) => {
      if (error instanceof TransactionRollbackError) return false;
      throw error;
    });
