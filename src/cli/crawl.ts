import { INDEXABLE } from '$core/facts';
import { sentence } from '$core/messages';
import { thousands } from '$core/numbers';
import { countPages } from '$core/snapshot';
import type { Snapshot } from '$core/snapshot';
import { viewOf } from '$core/view';
import { runCrawl, terminalName } from '$crawl/index';
import type { Interruption } from '$crawl/index';
import { addCrawl, getCrawl, saveList, saveSite, SETTINGS_LIST } from '$server/index';
import type { Database } from '$server/index';
import { makeFolder, writeFiles } from './export';
import type { CrawlCall } from './commands/handlers';
import { progressWriter } from './progress';

/**
 * `edgemap crawl`: crawls in the foreground. Ctrl-C stops it and keeps what was found; a second one ends at once.
 * @returns the exit code: 0 done or stopped, 1 nothing could be fetched
 */
export async function crawlCommand(
  db: Database,
  { settings, lists, out, view, allowPrivate }: CrawlCall,
): Promise<number> {
  // Found out before the crawl, not after it.
  if (out) await makeFolder(out);
  const owner = terminalName();
  const siteId = await saveSite(db, settings);
  if (lists.length) await saveList(db, siteId, SETTINGS_LIST, lists);
  const crawlId = await addCrawl(db, siteId, settings, owner);
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
  const ending = await runCrawl({
    db,
    lease: { crawlId, kind: 'crawl', owner, number: 1 },
    owner,
    allowPrivate,
    signal: interrupt.signal,
    onProgress: progress.show,
    onSnapshot: (snapshot) => built.push(snapshot),
  }).finally(progress.end);
  const row = (await getCrawl(db, crawlId))!;
  if (!ending) {
    const paused = `Crawl ${crawlId} was paused. Resume it in Edge Map; what was fetched is kept.`;
    console.error(row.state === 'paused' ? paused : `Another worker has taken crawl ${crawlId} over.`);
    return 1;
  }
  if (ending.state === 'failed') {
    if (ending.reason) console.error(sentence(ending.reason));
    return 1;
  }
  const [snapshot] = built;
  if (out) await writeFiles(db, out, viewOf(snapshot), row, view);
  const verdict = snapshot.column('verdict');
  const depth = snapshot.column('depth');
  const indexable = countPages(snapshot, (page) => verdict[page] === INDEXABLE);
  const noRoute = countPages(snapshot, (page) => depth[page] < 0);
  if (ending.reason) console.error(sentence(ending.reason));
  console.error(
    `Crawl ${crawlId}: ${thousands(snapshot.count)} addresses, ${thousands(indexable)} indexable, ${thousands(noRoute)} without a route.` +
      (out ? ` Written to ${out}.` : ''),
  );
  return 0;
}
