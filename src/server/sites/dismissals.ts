/** What a person has looked at and does not want to be proposed again, on any crawl of a site. */
import { and, eq } from 'drizzle-orm';
import { hashOf } from '../database';
import type { Database } from '../database';
import { dismissal } from '../database/schema';

export type Dismissal = Pick<typeof dismissal.$inferSelect, 'kind' | 'what' | 'target'>;
const keyOf = ({ kind, what, target }: Dismissal) => hashOf(`${kind} ${target} ${what}`);

/** What was dismissed of a kind: by target the addresses or words. */
export async function dismissalsOf(
  db: Database,
  siteId: number,
  kind: Dismissal['kind'],
): Promise<Map<string, Set<string>>> {
  const rows = await db
    .select({ what: dismissal.what, target: dismissal.target })
    .from(dismissal)
    .where(and(eq(dismissal.siteId, siteId), eq(dismissal.kind, kind)));
  const found = new Map<string, Set<string>>();
  for (const { what, target } of rows) found.set(target, (found.get(target) ?? new Set()).add(what));
  return found;
}

/** Dismisses a proposal, or takes that back. */
export async function dismiss(db: Database, siteId: number, one: Dismissal, dismissed: boolean): Promise<void> {
  const keyHash = keyOf(one);
  if (dismissed)
    await db
      .insert(dismissal)
      .values({ siteId, ...one, keyHash })
      .onDuplicateKeyUpdate({ set: { keyHash } });
  else await db.delete(dismissal).where(and(eq(dismissal.siteId, siteId), eq(dismissal.keyHash, keyHash)));
}
