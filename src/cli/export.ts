import { createWriteStream } from 'node:fs';
import { mkdir, stat, writeFile } from 'node:fs/promises';
import { dirname, join, resolve } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { describeFindings, findingsOf } from '$core/findings';
import { linksCsv, pagesCsv, ruleTables, summarize } from '$core/formats';
import { orderRows, pageList } from '$core/lists';
import { sentence } from '$core/messages';
import { evaluate } from '$core/selection';
import { settingsSchema } from '$core/settings';
import { leaksOf } from '$core/share';
import { addressAt } from '$core/snapshot';
import { withPlainShare } from '$core/view';
import type { View } from '$core/view';
import { openReport } from '$server/index';
import type { Crawl, Database } from '$server/index';
import { crawlFor } from './finished';
import type { ViewOptions } from './options';
import { failure, isError } from '$core/errors';

/** Writes a text to a file, piece by piece. */
export const writePieces = (file: string, pieces: Iterable<string>) =>
  pipeline(Readable.from(pieces), createWriteStream(file));

/** The pages that a selection holds. @throws usage when it takes too much work */
export function selected(view: View, select: ViewOptions['select']) {
  try {
    return evaluate(view, select);
  } catch (error) {
    throw isError(error, 'selection') ? failure('usage', error.message) : error;
  }
}

/** The view with share by the model that is asked for, and the pages that are selected of it in their order. */
function look(crawled: View, { select, sort, shareModel }: ViewOptions) {
  // The column of a snapshot is share by the model `site`.
  const { view, share } = shareModel === 'plain' ? withPlainShare(crawled) : { view: crawled, share: null };
  const list = pageList(view, selected(view, select));
  const pages = sort ? orderRows(list, sort.fact, sort.descending) : list.rows;
  return { view, share, pages };
}

/** One after the other from the first that is missing: where none can be made, Node.js itself tries without end. */
async function makeFolders(folder: string): Promise<void> {
  try {
    await mkdir(folder);
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (code === 'EEXIST' && (await stat(folder)).isDirectory()) return;
    const parent = dirname(folder);
    if (code !== 'ENOENT' || parent === folder) throw error;
    await makeFolders(parent);
    await mkdir(folder);
  }
}

/** Makes the folder for the files of a crawl, and those that it stands in. @throws usage */
export async function makeFolder(out: string): Promise<void> {
  await makeFolders(resolve(out)).catch((error: Error) => {
    throw failure('usage', `--out: the folder cannot be made: ${error.message}`);
  });
}

/** Writes pages.csv, links.csv and summary.json of a crawl that has a snapshot into a folder that exists. */
export async function writeFiles(
  db: Database,
  folder: string,
  crawled: View,
  row: Crawl,
  options: ViewOptions,
): Promise<void> {
  const { view, share, pages } = look(crawled, options);
  await writePieces(join(folder, 'pages.csv'), pagesCsv(view, pages));
  await writePieces(join(folder, 'links.csv'), linksCsv(view));
  const settings = settingsSchema.parse(row.settings);
  const { state, reason, startedAt, endedAt } = row;
  // By another model findings touch another part of share.
  const report = share
    ? { leaks: leaksOf(view, share), findings: describeFindings(findingsOf(view, settings)) }
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
    share_model: options.shareModel,
    ...summarize(view),
    leaks: report?.leaks,
    findings,
    settings,
  };
  await writeFile(join(folder, 'summary.json'), `${JSON.stringify(summary, null, 2)}\n`);
}

/** `edgemap export`: writes the files of a finished crawl. */
export async function exportCommand(
  db: Database,
  { crawl, out, view: options, tables }: { crawl: number; out: string; view: ViewOptions; tables: boolean },
): Promise<number> {
  const { row, view } = await crawlFor(db, crawl, options);
  await makeFolder(out);
  await writeFiles(db, out, view, row, options);
  if (tables)
    for (const [name, pieces] of Object.entries(ruleTables(view, row.settings.start)))
      await writePieces(join(out, name), pieces);
  console.error(`Crawl ${crawl} is written to ${out}.`);
  return 0;
}

/** `edgemap select`: prints the addresses that a selection holds, one per line. */
export async function selectCommand(
  db: Database,
  { crawl, view: options }: { crawl: number; view: ViewOptions },
): Promise<number> {
  const { view, pages } = look((await crawlFor(db, crawl, options)).view, options);
  function* lines() {
    for (const page of pages) yield `${addressAt(view, page)}\n`;
  }
  await pipeline(Readable.from(lines()), process.stdout, { end: false }).catch((error: NodeJS.ErrnoException) => {
    // Whoever reads may have seen enough.
    if (error.code !== 'EPIPE') throw error;
  });
  return 0;
}
