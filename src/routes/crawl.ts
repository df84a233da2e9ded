/** The one loader of what a crawl's screens and endpoints need. */
import { error, redirect } from '@sveltejs/kit';
import type { ServerLoadEvent } from '@sveltejs/kit';
import type { DraftedCrawl } from '$core/draft';
import { isError } from '$core/errors';
import { sentence } from '$core/messages';
import { findingsAt } from '$core/report';
import { asksForEarlier, asksForLinks, asksForTexts, parseLinkSelection, parseSelection } from '$core/selection';
import type { Selection } from '$core/selection';
import type { CrawlSettings } from '$core/settings';
import { pageOf, SNAPSHOT_VERSION } from '$core/snapshot';
import type { PartGroup } from '$core/snapshot';
import type { ComparedView, View } from '$core/view';
import { crawlPath } from '$lib/shell/routes';
import {
  appDatabase,
  besideView,
  crawlSettings,
  currentDraft,
  draftOfSite,
  findingsOfPages,
  openComparison,
  openDraft,
  openSiteReport,
  openSnapshot,
  previousCrawl,
  reportOfSite,
  requestAnalysis,
} from '$server/index';
import type { ComparisonCall, CrawlState, Draft, OpenDraft, SiteName, SiteReport } from '$server/index';
import { errorTexts } from './texts';

/**
 * What the boundary has found of the address of a load. The load runs anew when the browser goes on to another crawl,
 * or to another version of it: it does so for the parameters that a load has read, and not for `locals`.
 */
export function localsOf({ locals, params }: Pick<ServerLoadEvent, 'locals' | 'params'>): App.Locals {
  void [params.site, params.crawl];
  return locals;
}

/** The site that the address names. */
export function siteOf({ site, failure }: App.Locals): SiteName {
  if (failure) throw failure;
  return site ?? error(404, errorTexts.noSuchSite);
}

/** The crawl that the address names. */
export function crawlOf({ crawl, failure }: App.Locals): CrawlState {
  if (failure) throw failure;
  return crawl ?? error(404, errorTexts.noSuchCrawl);
}

export const hasEnded = ({ state }: Pick<CrawlState, 'state'>) => state === 'done' || state === 'stopped';

/** Whether a crawl that has not ended can be looked at, as far as it has come. */
export const isSoFar = (crawl: Pick<CrawlState, 'state' | 'analysedAt'>) =>
  !hasEnded(crawl) && crawl.analysedAt !== null;

/** What a selection needs to be answered: links, an earlier crawl, and the texts of pages. */
export function needOf(select: string, over: 'pages' | 'links' = 'pages') {
  const parsed = over === 'pages' ? parseSelection(select) : parseLinkSelection(select);
  const selection: Selection = parsed.ok ? parsed.selection : { op: 'all' };
  return {
    links: over === 'links' || asksForLinks(selection),
    earlier: asksForEarlier(selection),
    texts: asksForTexts(selection),
  };
}

/** The snapshot of a crawl; null when it has none that this program reads: then a worker is asked for one. */
async function snapshotOf(crawl: CrawlState, need: PartGroup): Promise<View | null> {
  const db = appDatabase();
  if (!hasEnded(crawl) && !isSoFar(crawl)) return null;
  try {
    return await openSnapshot(db, crawl, need);
  } catch (thrown) {
    if (!isError(thrown, 'snapshot_version')) throw thrown;
    if (thrown.params.version > SNAPSHOT_VERSION) error(409, 'A newer version of Edge Map has analysed this crawl.');
    const { reason } = crawl;
    if (reason?.code === 'workers_died') error(503, sentence(reason));
    await requestAnalysis(db, crawl.id);
    return null;
  }
}

/** A crawl that edits can be put on; null while it still changes, and when it has no snapshot. */
export async function draftableCrawl(crawl: CrawlState): Promise<DraftedCrawl | null> {
  const view = hasEnded(crawl) ? await snapshotOf(crawl, 'words') : null;
  if (!view) return null;
  const settings = await crawlSettings(appDatabase(), crawl.id);
  return { view, settings, began: crawl.startedAt ?? crawl.createdAt };
}

/** The current draft of the site over the crawl; null when there is none, or the crawl is still changing. */
export async function draftOver(
  locals: App.Locals,
): Promise<(OpenDraft & { draft: Draft; crawled: View; settings: CrawlSettings }) | null> {
  const crawl = crawlOf(locals);
  const draft = await currentDraft(appDatabase(), crawl.siteId);
  const over = draft && (await draftableCrawl(crawl));
  return over && { draft, crawled: over.view, settings: over.settings, ...openDraft(over, draft) };
}

/**
 * The crawl beside what the current draft, put on the crawl before, predicted of it; null when no edit is older than
 * the crawl, or there is no crawl before.
 */
export async function predictionFor(locals: App.Locals): Promise<{ before: View; view: ComparedView } | null> {
  const db = appDatabase();
  const crawl = crawlOf(locals);
  const [draft, over, earlier] = [
    await currentDraft(db, crawl.siteId),
    await draftableCrawl(crawl),
    await previousCrawl(db, crawl),
  ];
  const edits = draft?.edits.filter(({ at, on }) => on && over && at < over.began) ?? [];
  const before = draft && over && earlier && edits.length ? await draftableCrawl(earlier) : null;
  if (!before) return null;
  const { view } = openDraft(before, { ...draft!, edits });
  return { before: before.view, view: besideView(over!.view, view) };
}

/** The draft that the address asks for; null where it asks for the crawl as it was crawled. */
const draftAsked = (locals: App.Locals) =>
  locals.version === 'drafted' || locals.version === 'difference' ? draftOver(locals) : null;

/** The prediction that the address asks for. */
const predictionAsked = async (locals: App.Locals) =>
  locals.version === 'predicted' ? ((await predictionFor(locals))?.view ?? null) : null;

/** The report of the crawl, or of the draft, that the address names, without what the site ignores. */
export async function reportFor(locals: App.Locals): Promise<SiteReport | null> {
  const db = appDatabase();
  const crawl = crawlOf(locals);
  const drafted = await draftAsked(locals);
  return drafted
    ? reportOfSite(db, crawl.siteId, drafted.report().report, () => Promise.resolve(drafted.view))
    : openSiteReport(db, crawl);
}

/** For each of some pages the ids of the findings about it, likewise. */
export async function findingsFor(locals: App.Locals, pages: readonly number[]): Promise<string[][]> {
  const drafted = await draftAsked(locals);
  if (!drafted) return findingsOfPages(appDatabase(), crawlOf(locals), pages);
  const { report, pages: found } = drafted.report();
  return pages.map((page) => findingsAt(found, page, report.ids));
}

/** Findings with how many key pages each is about: those that are about any first, else in their order. */
export async function keyFirst<F extends { id: string }>(
  locals: App.Locals,
  view: View,
  findings: readonly F[],
): Promise<(F & { keyPages: number })[]> {
  const pages = (view.keys ?? []).map((address) => pageOf(view, address)).filter((page) => page >= 0);
  const counts = new Map<string, number>();
  for (const ids of pages.length ? await findingsFor(locals, pages) : [])
    for (const id of ids) counts.set(id, (counts.get(id) ?? 0) + 1);
  const counted = findings.map((finding) => ({ ...finding, keyPages: counts.get(finding.id) ?? 0 }));
  return [...counted.filter(({ keyPages }) => keyPages > 0), ...counted.filter(({ keyPages }) => keyPages === 0)];
}

/**
 * The crawl that the address names, with its snapshot; the reader is sent to watch a crawl that has none yet.
 * @param need whether its links are asked for
 */
export async function crawlWithSnapshot(locals: App.Locals, need: PartGroup) {
  const db = appDatabase();
  const crawl = crawlOf(locals);
  const drafted = await draftAsked(locals);
  if (drafted) return { db, crawl, snapshot: locals.version === 'difference' ? drafted.difference() : drafted.view };
  const predicted = await predictionAsked(locals);
  if (predicted) return { db, crawl, snapshot: predicted };
  const snapshot = await snapshotOf(crawl, need);
  if (!snapshot) redirect(307, `${crawlPath(crawl.siteId, crawl.id)}/watch`);
  // Whoever looks at pages asks for their links next.
  if (need === 'facts') void openSnapshot(db, crawl, 'links').catch(() => {});
  return { db, crawl, snapshot };
}

/** The crawl with the current draft beside the same with another one; null where that is not asked for. */
async function otherDraftBeside(locals: App.Locals, id: number | null): Promise<ComparedView | null> {
  const crawl = crawlOf(locals);
  const [drafted, over] = id === null ? [null, null] : [await draftAsked(locals), await draftableCrawl(crawl)];
  if (!drafted || !over) return null;
  const other = (await draftOfSite(appDatabase(), crawl.siteId, id!)) ?? error(404, errorTexts.noSuchDraft);
  return besideView(drafted.view, openDraft(over, other).view);
}

/** What each number is to be shown beside: the crawl, for what a draft changes, or a prediction; else null. */
export const beforeOf = ({ version }: App.Locals, snapshot: View): View | null =>
  version === 'difference' || version === 'predicted' ? (snapshot.comparison?.old ?? null) : null;

/**
 * As {@link crawlWithSnapshot}, with an earlier crawl beside it where there is one; beside a draft is the crawl itself,
 * and beside a crawl its prediction where that is asked for.
 * @param call which one, and how the pages of the two are paired
 */
export async function crawlWithEarlier(locals: App.Locals, need: PartGroup, call: ComparisonCall) {
  const found = await crawlWithSnapshot(locals, need);
  const { db, crawl } = found;
  const beside =
    (await otherDraftBeside(locals, call.draft)) ??
    (await draftAsked(locals))?.difference() ??
    (await predictionAsked(locals));
  if (beside) return { ...found, snapshot: beside, compared: { earlier: crawl, snapshot: beside } };
  try {
    const open = await openComparison(db, crawl, call, need);
    return { ...found, snapshot: open?.snapshot ?? found.snapshot, compared: open };
  } catch (thrown) {
    if (!isError(thrown, 'snapshot_version')) throw thrown;
    const earlier = call.since ?? (await previousCrawl(db, crawl))?.id;
    if (earlier !== undefined && thrown.params.version < SNAPSHOT_VERSION) await requestAnalysis(db, earlier);
    error(503, errorTexts.earlierIsAnalysed);
  }
}
