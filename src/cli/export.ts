import { createWriteStream } from 'node:fs';
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { setTimeout as sleep } from 'node:timers/promises';
import { describeFindings, findingsOf } from '$core/findings';
import { linksCsv, pagesCsv, ruleTables, summarize } from '$core/formats';
import type { SnapshotWithImports } from '$core/imports';
import { orderRows, pageList } from '$core/lists';
import { sentence } from '$core/messages';
import { asksForEarlier, evaluate, Fault } from '$core/selection';
import { settingsSchema } from '$core/settings';
import { leaksOf, plainShare } from '$core/share';
import { addressAt, SNAPSHOT_VERSION, SnapshotVersionError } from '$core/snapshot';
import type { Snapshot } from '$core/snapshot';
import { runAnalysis, terminalName } from '$crawl/index';
import {
  analysisProgress,
  getCrawl,
  leaseAnalysis,
  openComparison,
  openReport,
  openSnapshot,
  requestAnalysis,
} from '$server/index';
import type { Crawl, Database } from '$server/index';
import { UsageError } from './options';
import type { View } from './options';

/** Writes a text to a file, piece by piece. */
export const writePieces = (file: string, pieces: Iterable<string>) =>
  pipeline(Readable.from(pieces), createWriteStream(file));

/** The pages that a selection holds. @throws UsageError when it takes too much work */
function selected(snapshot: Snapshot, select: View['select']) {
  try {
    return evaluate(snapshot, select);
  } catch (error) {
    throw error instanceof Fault ? new UsageError(error.message) : error;
  }
}

/** The pages of a view in its order, and the snapshot with share by its model. */
function look(snapshot: Snapshot, { select, sort, shareModel }: View) {
  // The column of a snapshot is share by the model `site`.
  const share = shareModel === 'plain' ? plainShare(snapshot) : null;
  // As the snapshot is, but for its share; columns that nobody asks for are not read.
  const columns = Object.create(
    snapshot.columns,
    share ? { share: { value: share.share } } : {},
  ) as Snapshot['columns'];
  const seen = Object.create(snapshot, { columns: { value: columns } }) as Snapshot;
  const list = pageList(seen, selected(seen, select));
  const pages = sort ? orderRows(list, sort.fact, sort.descending) : list.rows;
  return { seen, share, pages };
}

/** Makes the folder for the files of a crawl. @throws UsageError */
export async function makeFolder(out: string): Promise<void> {
  await mkdir(out, { recursive: true }).catch((error: Error) => {
    throw new UsageError(`--out: the folder cannot be made: ${error.message}`);
  });
}

/** Writes pages.csv, links.csv and summary.json of a crawl that has a snapshot into a folder that exists. */
export async function writeFiles(
  db: Database,
  folder: string,
  snapshot: Snapshot,
  row: Crawl,
  view: View,
): Promise<void> {
  const { seen, share, pages } = look(snapshot, view);
  await writePieces(join(folder, 'pages.csv'), pagesCsv(seen, pages));
  await writePieces(join(folder, 'links.csv'), linksCsv(seen));
  const settings = settingsSchema.parse(row.settings);
  const { state, reason, startedAt, endedAt } = row;
  // By another model findings touch another part of share.
  const report = share
    ? { leaks: leaksOf(seen, share), findings: describeFindings(findingsOf(seen, settings)) }
    : await openReport(db, row);
  const findings = report?.findings.map((finding) => ({
    ...finding,
    files: finding.files.map((file) => ({ ...file, evidence: sentence(file.evidence) })),
  }));
  const summary = {
    start: settings.start,
    crawl: row.id,
    state,
    reason: reason && sentence(reason),
    startedAt,
    endedAt,
    share_model: view.shareModel,
    ...summarize(seen),
    leaks: report?.leaks,
    findings,
    settings,
  };
  await writeFile(join(folder, 'summary.json'), `${JSON.stringify(summary, null, 2)}\n`);
}

const WAIT_MS = 500;

/** Analyses a crawl of an earlier version anew, or waits until a worker that is at it has done so. */
async function analyseHere(db: Database, id: number): Promise<void> {
  console.error(`Crawl ${id} was analysed by an earlier version of Edge Map; it is analysed anew first.`);
  await requestAnalysis(db, id);
  const lease = await leaseAnalysis(db, id, terminalName());
  if (lease) await runAnalysis({ db, lease });
  else while (await analysisProgress(db, id)) await sleep(WAIT_MS);
}

async function snapshotOf(db: Database, row: Crawl): Promise<SnapshotWithImports | null> {
  try {
    return await openSnapshot(db, row);
  } catch (error) {
    if (!(error instanceof SnapshotVersionError) || error.version > SNAPSHOT_VERSION) throw error;
  }
  await analyseHere(db, row.id);
  return openSnapshot(db, row);
}

/** A crawl and its snapshot. @throws UsageError when there is none */
export async function finishedCrawl(db: Database, id: number): Promise<{ row: Crawl; snapshot: SnapshotWithImports }> {
  const row = await getCrawl(db, id);
  if (!row) throw new UsageError(`There is no crawl ${id}.`);
  const snapshot = await snapshotOf(db, row);
  if (!snapshot) throw new UsageError(`Crawl ${id} has not come to an end yet: it is ${row.state}.`);
  return { row, snapshot };
}

/** As {@link finishedCrawl}, with the crawl before it where a selection asks for one. */
async function crawlFor(db: Database, id: number, { select }: Pick<View, 'select'>) {
  const { row, snapshot } = await finishedCrawl(db, id);
  const call = { since: null, map: [], by: [] };
  const open = asksForEarlier(select) ? await openComparison(db, row, call, 'links') : null;
  return { row, snapshot: open?.snapshot ?? snapshot };
}

/** `edgemap export`: writes the files of a finished crawl. */
export async function exportCommand(
  db: Database,
  { crawl, out, view, tables }: { crawl: number; out: string; view: View; tables: boolean },
): Promise<number> {
  const { row, snapshot } = await crawlFor(db, crawl, view);
  await makeFolder(out);
  await writeFiles(db, out, snapshot, row, view);
  if (tables)
    for (const [name, pieces] of Object.entries(ruleTables(snapshot, row.settings.start)))
      await writePieces(join(out, name), pieces);
  console.error(`Crawl ${crawl} is written to ${out}.`);
  return 0;
}

/** `edgemap select`: prints the addresses that a selection holds, one a line. */
export async function selectCommand(db: Database, { crawl, view }: { crawl: number; view: View }): Promise<number> {
  const { snapshot } = await crawlFor(db, crawl, view);
  const { seen, pages } = look(snapshot, view);
  function* lines() {
    for (const page of pages) yield `${addressAt(seen, page)}\n`;
  }
  await pipeline(Readable.from(lines()), process.stdout, { end: false }).catch((error: NodeJS.ErrnoException) => {
    // Whoever reads may have seen enough.
    if (error.code !== 'EPIPE') throw error;
  });
  return 0;
}
