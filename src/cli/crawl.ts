import { createWriteStream } from 'node:fs';
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { linksCsv, pagesCsv, summarize } from '$core/formats';
import type { Snapshot } from '$core/snapshot';
import { runJob, terminalName } from '$crawl/index';
import type { Interruption } from '$crawl/index';
import { addCrawl, getCrawl, saveSite } from '$server/index';
import type { Crawl, Database } from '$server/index';
import { UsageError } from './options';
import type { CrawlCall } from './options';
import { progressWriter } from './progress';

const write = (file: string, rows: Iterable<string>) => pipeline(Readable.from(rows), createWriteStream(file));

/** Writes pages.csv, links.csv and summary.json into a folder that exists. */
async function writeFiles(folder: string, snapshot: Snapshot, row: Crawl): Promise<void> {
  await write(join(folder, 'pages.csv'), pagesCsv(snapshot));
  await write(join(folder, 'links.csv'), linksCsv(snapshot));
  const { settings, state, reason, startedAt, endedAt } = row;
  const summary = {
    start: settings.start,
    crawl: row.id,
    state,
    reason,
    startedAt,
    endedAt,
    ...summarize(snapshot),
    settings,
  };
  await writeFile(join(folder, 'summary.json'), `${JSON.stringify(summary, null, 2)}\n`);
}

/**
 * `edgemap crawl`: crawls in the foreground. Ctrl-C stops it and keeps what was found; a second one ends at once.
 * @returns the exit code: 0 done or stopped, 1 nothing could be fetched
 */
export async function crawlCommand(db: Database, { settings, out }: CrawlCall): Promise<number> {
  if (out) {
    // Found out before the crawl, not after it.
    await mkdir(out, { recursive: true }).catch((error: Error) => {
      throw new UsageError(`--out: the folder cannot be made: ${error.message}`);
    });
  }
  const owner = terminalName();
  const crawlId = await addCrawl(db, await saveSite(db, settings), settings, owner);
  const interrupt = new AbortController();
  const onSignal = () => {
    if (interrupt.signal.aborted) process.exit(130);
    console.error('\nStopping. What has been fetched is kept.');
    interrupt.abort('stop' satisfies Interruption);
  };
  process.on('SIGINT', onSignal);
  process.on('SIGTERM', onSignal);
  const progress = progressWriter(process.stderr);
  const built: Snapshot[] = [];
  const ending = await runJob({
    db,
    crawlId,
    owner,
    allowPrivate: true,
    signal: interrupt.signal,
    onProgress: progress.show,
    onSnapshot: (snapshot) => built.push(snapshot),
  }).finally(progress.end);
  const row = (await getCrawl(db, crawlId))!;
  if (!ending) {
    const paused = `Crawl ${crawlId} was paused. Let it go on in Edge Map; what it has is kept.`;
    console.error(row.state === 'paused' ? paused : `Another worker has taken crawl ${crawlId} over.`);
    return 1;
  }
  if (ending.state === 'failed') {
    console.error(ending.reason);
    return 1;
  }
  const [snapshot] = built;
  if (out) await writeFiles(out, snapshot, row);
  const { pages, reach, verdict } = summarize(snapshot);
  const lost = (reach.orphan ?? 0) + (reach.island ?? 0);
  if (ending.reason) console.error(ending.reason);
  console.error(
    `Crawl ${crawlId}: ${pages.toLocaleString('en')} addresses, ${(verdict.indexable ?? 0).toLocaleString('en')} indexable, ${lost.toLocaleString('en')} without a route.` +
      (out ? ` Written to ${out}.` : ''),
  );
  return 0;
}
