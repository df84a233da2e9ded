/** The watch list of a site: what is to hold after every crawl, and what each crawl tells of it. */
import { and, asc, eq } from 'drizzle-orm';
import { breaks } from '$core/watchList';
import type { Bound, CheckedBound } from '$core/watchList';
import { asksForEarlier, asksForTexts, countBits, parseLinkSelection, NO_TEXTS, parseSelection } from '$core/selection';
import { readTexts } from '$core/view';
import type { View } from '$core/view';
import { openComparison, previousCrawl } from '../comparisons';
import type { CrawlState } from '../crawls';
import type { Database } from '../database';
import { bound, boundCount, site } from '../database/schema';
import { selectLinks, selectPages } from '../lists';
import { openSiteReport, openSnapshot } from '../snapshots';

const boundColumns = { id: bound.id, name: bound.name, over: bound.over, text: bound.text, atMost: bound.atMost };

/** The watch list of a site, in the order in which it was written. */
export const boundsOf = (db: Database, siteId: number): Promise<Bound[]> =>
  db.select(boundColumns).from(bound).where(eq(bound.siteId, siteId)).orderBy(asc(bound.id));

/** Bounds of one site at most: each is counted in every crawl. */
export const MOST_BOUNDS = 100;

/** @returns its number; null when the site has as many as it may */
export const addBound = (db: Database, siteId: number, given: Omit<Bound, 'id'>): Promise<number | null> =>
  db.transaction(async (tx) => {
    // One at a time, or two at once would make one too many.
    await tx.select({ id: site.id }).from(site).where(eq(site.id, siteId)).for('update');
    if ((await tx.$count(bound, eq(bound.siteId, siteId))) >= MOST_BOUNDS) return null;
    const [{ id }] = await tx
      .insert(bound)
      .values({ siteId, ...given })
      .$returningId();
    return id;
  });

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
async function count(db: Database, crawl: CrawlState, { over, text }: Bound): Promise<Counted & { isPassing?: true }> {
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
  if (asksForTexts(parsed.selection)) {
    await readTexts(snapshot);
    if (!snapshot.texts?.index) return { count: null, fault: NO_TEXTS, isPassing: true };
  }
  const found = over === 'pages' ? selectPages(snapshot, text) : selectLinks(snapshot, text);
  return found.fault
    ? { count: null, fault: found.fault.message }
    : { count: countBits('pages' in found ? found.pages : found.links), fault: null };
}

/** What a crawl tells of bounds, by their numbers: as it was counted, or counted now and kept. */
async function counted(db: Database, crawl: CrawlState, bounds: readonly Bound[]): Promise<Map<number, Counted>> {
  const analysedAt = crawl.analysedAt!;
  const rows = await db
    .select({ id: boundCount.boundId, count: boundCount.count, fault: boundCount.fault })
    .from(boundCount)
    .where(and(eq(boundCount.crawlId, crawl.id), eq(boundCount.analysedAt, analysedAt)));
  const known = new Map(rows.map(({ id, ...rest }): [number, Counted] => [id, rest]));
  // One after the other: each may open snapshots.
  for (const one of bounds) {
    if (known.has(one.id)) continue;
    const { isPassing, ...found } = await count(db, crawl, one);
    known.set(one.id, found);
    if (isPassing) continue;
    await db
      .insert(boundCount)
      .values({ boundId: one.id, crawlId: crawl.id, analysedAt, ...found })
      .onDuplicateKeyUpdate({ set: { analysedAt, ...found } });
  }
  return known;
}

/**
 * Checks the watch list of its site against a crawl that has been analysed. What has been counted is kept: a worker
 * counts as soon as a crawl has ended, and screens only what was added since.
 */
export async function checkBounds(db: Database, crawl: CrawlState): Promise<CheckedBound[]> {
  const bounds = await boundsOf(db, crawl.siteId);
  if (bounds.length === 0 || crawl.analysedAt === null) return [];
  const previous = await previousCrawl(db, crawl);
  const now = await counted(db, crawl, bounds);
  const then = previous ? await counted(db, previous, bounds) : null;
  return bounds.map((one) => {
    const before = then?.get(one.id)!.count ?? null;
    const found = now.get(one.id)!;
    return { ...one, ...found, before, isBroken: breaks(one, found.count, before) };
  });
}
