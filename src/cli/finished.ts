/** The crawl that a command is about, with all that is asked for: analysed here, its texts indexed, where need be. */
import { setTimeout as sleep } from 'node:timers/promises';
import { failure, isError } from '$core/errors';
import { asksForEarlier, asksForTexts } from '$core/selection';
import { SNAPSHOT_VERSION } from '$core/snapshot';
import type { PartGroup } from '$core/snapshot';
import { readTexts } from '$core/view';
import type { View } from '$core/view';
import { indexTexts, runAnalysis, terminalName } from '$crawl/index';
import {
  analysisProgress,
  getCrawl,
  leaseWaiting,
  openComparison,
  openSnapshot,
  openTexts,
  requestAnalysis,
  requestTexts,
  textsProgress,
} from '$server/index';
import type { Crawl, Database } from '$server/index';
import type { ViewOptions } from './options';

const WAIT_MS = 500;

/** Analyses a crawl of an earlier version anew, or waits until a worker that is at it has done so. */
async function analyseHere(db: Database, id: number): Promise<void> {
  console.error(`Crawl ${id} was analysed by an earlier version of Edge Map; it is analysed anew first.`);
  await requestAnalysis(db, id);
  // A worker that is at it may die of it.
  for (; await analysisProgress(db, id); await sleep(WAIT_MS)) {
    const lease = await leaseWaiting(db, id, 'analysis', terminalName());
    if (lease) return void (await runAnalysis({ db, lease }));
  }
}

/** Indexes the texts of a crawl that has no index yet, or waits until a worker that is at it has done so. */
export async function textsIndexed(db: Database, row: Crawl): Promise<void> {
  if (await openTexts(db, row)) return;
  console.error(`The texts of crawl ${row.id} are indexed first.`);
  await requestTexts(db, row.id);
  // A worker that is at it may die of it.
  for (; await textsProgress(db, row.id); await sleep(WAIT_MS)) {
    const lease = await leaseWaiting(db, row.id, 'texts', terminalName());
    if (lease) return indexTexts({ db, lease });
  }
}

async function snapshotOf(db: Database, row: Crawl, need: PartGroup): Promise<View | null> {
  try {
    return await openSnapshot(db, row, need);
  } catch (error) {
    if (!isError(error, 'snapshot_version') || error.params.version > SNAPSHOT_VERSION) throw error;
  }
  await analyseHere(db, row.id);
  return openSnapshot(db, row, need);
}

/** A crawl and its snapshot. @throws usage when there is none */
export async function finishedCrawl(
  db: Database,
  id: number,
  need: PartGroup = 'links',
): Promise<{ row: Crawl; snapshot: View }> {
  const row = await getCrawl(db, id);
  if (!row) throw failure('usage', `There is no crawl ${id}.`);
  const snapshot = await snapshotOf(db, row, need);
  if (!snapshot) throw failure('usage', `Crawl ${id} has not come to an end yet: it is ${row.state}.`);
  return { row, snapshot };
}

/** As {@link finishedCrawl}, with the crawl before it where a selection asks for one. */
export async function crawlFor(
  db: Database,
  id: number,
  { select }: Pick<ViewOptions, 'select'>,
  need: PartGroup = 'links',
) {
  const { row, snapshot } = await finishedCrawl(db, id, need);
  const call = { since: null, map: [], by: [] };
  const open = asksForEarlier(select) ? await openComparison(db, row, call, need) : null;
  const view = open?.snapshot ?? snapshot;
  if (asksForTexts(select)) {
    await textsIndexed(db, row);
    await readTexts(view);
  }
  return { row, view };
}
