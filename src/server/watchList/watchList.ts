/** The watch list of a site: what is to hold after every crawl, and what each crawl tells of it. */
import { and, asc, eq } from 'drizzle-orm';
import { breaks } from '$core/watchList';
import type { Bound, CheckedBound } from '$core/watchList';
import { asksForEarlier, countBits, parseLinkSelection, parseSelection } from '$core/selection';
import type { View } from '$core/view';
import { openComparison, previousCrawl } from '../comparisons';
import type { CrawlState } from '../crawls';
import type { Database } from '../database';
import { bound, boundCount } from '../database/schema';
import { selectLinks, selectPages } from '../lists';
import { openSiteReport, openSnapshot } from '../snapshots';

const boundColumns = { id: bound.id, name: bound.name, over: bound.over, text: bound.text, atMost: bound.atMost };

/** The watch list of a site, in the order in which it was written. */
export const boundsOf = (db: Database, siteId: number): Promise<Bound[]> =>
  db.select(boundColumns).from(bound).where(eq(bound.siteId, siteId)).orderBy(asc(bound.id));

export async function addBound(db: Database, siteId: number, given: Omit<Bound, 'id'>): Promise<number> {
  const [{ id }] = await db
    .insert(bound)
    .values({ siteId, ...given })
    .$returningId();
  return id;
}

/** @returns whether the site had such a bound */
export async function removeBound(db: Database, siteId: number, id: number): Promise<boolean> {
  const [{ affectedRows }] = await db.delete(bound).where(and(eq(bound.siteId, siteId), eq(bound.id, id)));
  if (affectedRows) await db.delete(boundCount).where(eq(boundCount.boundId, id));
  return affectedRows > 0;
}

interface Counted {
  count: number | null;
  fault: string | null;
}

/** Counts what a bound is about in a crawl. */
async function count(db: Database, crawl: CrawlState, { over, text }: Bound): Promise<Counted> {
  if (over === 'finding') {
    const report = await openSiteReport(db, crawl);
    return report
      ? { count: report.findings.find(({ id }) => id === text)?.occurrences ?? 0, fault: null }
      : { count: null, fault: 'The crawl has no report.' };
  }
  const parsed = over === 'pages' ? parseSelection(text) : parseLinkSelection(text);
  if (!parsed.ok) return { count: null, fault: parsed.fault.message };
  let snapshot: View | null = await openSnapshot(db, crawl, 'links');
  if (snapshot && asksForEarlier(parsed.selection))
    snapshot = (await openComparison(db, crawl, { since: null, map: [], by: [] }, 'links'))?.snapshot ?? snapshot;
  if (!snapshot) return { count: null, fault: 'The crawl has not been analysed.' };
  const found = over === 'pages' ? selectPages(snapshot, text) : selectLinks(snapshot, text);
  return found.fault
    ? { count: null, fault: found.fault.message }
    : { count: countBits('pages' in found ? found.pages : found.links), fault: null };
}

/** What a crawl tells of a bound: as it was counted, or counted now and kept. */
async function counted(db: Database, crawl: CrawlState, one: Bound): Promise<Counted> {
  const { id: boundId } = one;
  const analysedAt = crawl.analysedAt!;
  const [known] = await db
    .select({ count: boundCount.count, fault: boundCount.fault })
    .from(boundCount)
    .where(
      and(eq(boundCount.boundId, boundId), eq(boundCount.crawlId, crawl.id), eq(boundCount.analysedAt, analysedAt)),
    );
  if (known) return known;
  const found = await count(db, crawl, one);
  await db
    .insert(boundCount)
    .values({ boundId, crawlId: crawl.id, analysedAt, ...found })
    .onDuplicateKeyUpdate({ set: { analysedAt, ...found } });
  return found;
}

/**
 * Checks the watch list of its site against a crawl that has been analysed. What has been counted is kept: a worker
 * counts as soon as a crawl has ended, and screens only what was added since.
 */
export async function checkBounds(db: Database, crawl: CrawlState): Promise<CheckedBound[]> {
  const bounds = await boundsOf(db, crawl.siteId);
  if (bounds.length === 0 || crawl.analysedAt === null) return [];
  const previous = await previousCrawl(db, crawl);
  const checked: CheckedBound[] = [];
  // One after the other: each may open snapshots.
  for (const one of bounds) {
    const now = await counted(db, crawl, one);
    const before = previous ? (await counted(db, previous, one)).count : null;
    checked.push({ ...one, ...now, before, isBroken: breaks(one, now.count, before) });
  }
  return checked;
}
