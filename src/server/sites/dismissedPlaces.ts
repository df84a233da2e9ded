/** Places for links that a person has dismissed: they are not proposed again on any crawl of the site. */
import { and, eq } from 'drizzle-orm';
import { hashOf } from '../database';
import type { Database } from '../database';
import { dismissedPlace } from '../database/schema';

export interface PagePair {
  source: string;
  target: string;
}
const pairHash = ({ source, target }: PagePair) => hashOf(`${source} ${target}`);

/** The sources that were dismissed for a target. */
export async function dismissedFor(db: Database, siteId: number, target: string): Promise<Set<string>> {
  const rows = await db
    .select({ source: dismissedPlace.source })
    .from(dismissedPlace)
    .where(and(eq(dismissedPlace.siteId, siteId), eq(dismissedPlace.target, target)));
  return new Set(rows.map(({ source }) => source));
}

/** Dismisses a place, or takes that back. */
export async function dismissPlace(db: Database, siteId: number, pair: PagePair, dismissed: boolean): Promise<void> {
  const hash = pairHash(pair);
  if (dismissed)
    await db
      .insert(dismissedPlace)
      .values({ siteId, source: pair.source, target: pair.target, pairHash: hash })
      .onDuplicateKeyUpdate({ set: { pairHash: hash } });
  else await db.delete(dismissedPlace).where(and(eq(dismissedPlace.siteId, siteId), eq(dismissedPlace.pairHash, hash)));
}
