import { createWriteStream } from 'node:fs';
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { findingsOf } from '$core/findings';
import { inPieces, linksCsv, pagesCsv, summarize } from '$core/formats';
import { evaluate, numbersOf } from '$core/selection';
import { settingsSchema } from '$core/settings';
import { leaksOf, plainShare } from '$core/share';
import { addressAt, comparator } from '$core/snapshot';
import type { Snapshot } from '$core/snapshot';
import { getCrawl, openSnapshot, storedReport } from '$server/index';
import type { Crawl, Database } from '$server/index';
import { UsageError } from './options';
import type { ExportCall, SelectCall, View } from './options';

const write = (file: string, rows: Iterable<string>) =>
  pipeline(Readable.from(inPieces(rows)), createWriteStream(file));

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
  const pages = numbersOf(evaluate(seen, select));
  if (sort) pages.sort(comparator(columns[sort.fact], sort.descending));
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
  await write(join(folder, 'pages.csv'), pagesCsv(seen, pages));
  await write(join(folder, 'links.csv'), linksCsv(seen));
  const settings = settingsSchema.parse(row.settings);
  const { state, reason, startedAt, endedAt } = row;
  const head = {
    start: settings.start,
    crawl: row.id,
    state,
    reason,
    startedAt,
    endedAt,
    share_model: view.shareModel,
  };
  // By another model findings touch another part of share.
  const found = share
    ? { leaks: leaksOf(seen, share), findings: findingsOf(seen, settings) }
    : await storedReport(db, row);
  const summary = { ...head, ...summarize(seen), leaks: found?.leaks, findings: found?.findings, settings };
  await writeFile(join(folder, 'summary.json'), `${JSON.stringify(summary, null, 2)}\n`);
}

/** A crawl and its snapshot. @throws UsageError when there is none */
async function finishedCrawl(db: Database, id: number): Promise<{ row: Crawl; snapshot: Snapshot }> {
  const row = await getCrawl(db, id);
  if (!row) throw new UsageError(`There is no crawl ${id}.`);
  const snapshot = await openSnapshot(db, row);
  if (!snapshot) throw new UsageError(`Crawl ${id} has not come to an end yet: it is ${row.state}.`);
  return { row, snapshot };
}

/** `edgemap export`: writes the files of a finished crawl. */
export async function exportCommand(db: Database, { crawl, out, view }: ExportCall): Promise<number> {
  const { row, snapshot } = await finishedCrawl(db, crawl);
  await makeFolder(out);
  await writeFiles(db, out, snapshot, row, view);
  console.error(`Crawl ${crawl} is written to ${out}.`);
  return 0;
}

/** `edgemap select`: prints the addresses that a selection holds, one a line. */
export async function selectCommand(db: Database, { crawl, view }: SelectCall): Promise<number> {
  const { snapshot } = await finishedCrawl(db, crawl);
  const { seen, pages } = look(snapshot, view);
  const lines = Array.from(pages, (page) => `${addressAt(seen, page)}\n`);
  await pipeline(Readable.from(inPieces(lines)), process.stdout, { end: false }).catch(
    (error: NodeJS.ErrnoException) => {
      // Whoever reads may have seen enough.
      if (error.code !== 'EPIPE') throw error;
    },
  );
  return 0;
}
