/** Two open crawls side by side. */
import { and, desc, eq, inArray, isNotNull, isNull, lt } from 'drizzle-orm';
import { addressMap, comparePages } from '$core/compare';
import type { MapRule, PairedBy } from '$core/compare';
import { keptBytes } from '$core/snapshot';
import type { PartGroup } from '$core/snapshot';
import { crawlSettings, crawlState } from '../crawls';
import type { CrawlState } from '../crawls';
import type { Database } from '../database';
import { crawl } from '../database/schema';
import { currentDraft, openDraft } from '../drafts';
import { listBytes } from '../lists/cache';
import { keepBeside, openReport, openTogether } from '../snapshots';
import type { Analysed } from '../snapshots';
import { withComparison } from '$core/view';
import type { ComparedView, View } from '$core/view';

export interface ComparisonCall {
  /**
   * The earlier crawl, of this site or, where `map` says how addresses correspond, another; null for the one before.
   */
  since: number | null;
  /** Another draft of the site, which a drafted crawl is set beside instead; null for none. */
  draft: number | null;
  map: readonly MapRule[];
  by: readonly PairedBy[];
}

export interface OpenComparison {
  earlier: CrawlState;
  snapshot: ComparedView;
}

const canBeCompared = and(
  isNull(crawl.deletedAt),
  isNotNull(crawl.analysedAt),
  inArray(crawl.state, ['done', 'stopped']),
);

/** The crawl of a site that ended before another one; null when there is none. */
export async function previousCrawl(
  db: Database,
  { id, siteId }: Pick<CrawlState, 'id' | 'siteId'>,
): Promise<CrawlState | null> {
  const [row] = await db
    .select({ id: crawl.id })
    .from(crawl)
    .where(and(eq(crawl.siteId, siteId), lt(crawl.id, id), canBeCompared))
    .orderBy(desc(crawl.id))
    .limit(1);
  return row ? ((await crawlState(db, row.id)) ?? null) : null;
}

/** The crawl that one is to be compared with; null when there is none, or the two cannot be compared. */
export async function comparedCrawl(
  db: Database,
  { siteId }: Pick<CrawlState, 'siteId'>,
  { since, map }: { since: number; map: ComparisonCall['map'] },
): Promise<CrawlState | null> {
  const found = await crawlState(db, since);
  if (!found || found.deletedAt) return null;
  // Addresses of another site are compared only where a rule says which of this one they are.
  return found.siteId === siteId || map.length > 0 ? found : null;
}

/** The crawls that one can be compared with, of all sites, newest first. */
export const earlierCrawls = (db: Database, limit = 200) =>
  db
    .select({ id: crawl.id, siteId: crawl.siteId, at: crawl.startedAt, counts: crawl.counts })
    .from(crawl)
    .where(canBeCompared)
    .orderBy(desc(crawl.id))
    .limit(limit);

/** What was planned of a site is what its draft says, not what the crawl of it has fetched, which is nothing. */
async function asPlanned(db: Database, crawled: CrawlState, view: View): Promise<View> {
  const draft = crawled.planned ? await currentDraft(db, crawled.siteId) : null;
  if (!draft) return view;
  const settings = await crawlSettings(db, crawled.id);
  return openDraft({ view, settings, began: crawled.createdAt }, draft).view;
}

/** Comparisons that are kept with the snapshot of a crawl, at most. */
const MOST_KEPT = 2;
type Kept = { key: string; old: View; view: ComparedView };
const kept = new WeakMap<View, Kept[]>();

/** What the arrays of a comparison take, besides what has been made of it. */
const BYTES_A_ROW = 16;
const bytesOf = ({ view }: Kept) =>
  BYTES_A_ROW * view.comparison.rows + keptBytes(view.comparison) + keptBytes(view) + listBytes(view);

/**
 * The snapshot of a crawl with an earlier one beside it; null when there is no earlier one, or one of them has no
 * snapshot.
 * @param need whether the links of both are asked for
 * @throws snapshot_version when one of them was written by another version of the program
 */
export async function openComparison(
  db: Database,
  row: CrawlState,
  { since, map, by }: Omit<ComparisonCall, 'draft'>,
  need: PartGroup,
): Promise<OpenComparison | null> {
  // Whoever goes from one crawl to the next takes the earlier one along, until it is that one itself.
  const isPrevious = since === null || since === row.id;
  const earlier = isPrevious ? await previousCrawl(db, row) : await comparedCrawl(db, row, { since, map });
  if (!earlier) return null;
  // What holds the comparison is closed before what it compares with, whose memory it holds too.
  const [fresh, crawled] = await openTogether(db, [row, earlier], earlier.planned ? 'words' : need);
  const old = crawled && (await asPlanned(db, earlier, crawled));
  if (!old || !fresh) return null;
  const known = kept.get(fresh) ?? [];
  const key = JSON.stringify([earlier.id, map, by]);
  let found = known.find((one) => one.key === key && one.old === old);
  if (!found) {
    const comparison = comparePages(old, fresh, { map: addressMap(map), by });
    found = { key, old, view: withComparison(fresh, comparison) };
  }
  const others = known.filter((one) => one !== found && one.key !== key);
  kept.set(fresh, [found, ...others].slice(0, MOST_KEPT));
  keepBeside(fresh, 'comparisons', () => (kept.get(fresh) ?? []).reduce((sum, one) => sum + bytesOf(one), 0));
  return { earlier, snapshot: found.view };
}

/** A test whether one of some crawls has a finding, by their reports; where one has none, it may have any. */
export async function reportedIn(db: Database, rows: readonly Analysed[]): Promise<(id: string) => boolean> {
  const reports = await Promise.all(rows.map((row) => openReport(db, row)));
  return (id) => reports.some((report) => report === null || report.findings.some((finding) => finding.id === id));
}
