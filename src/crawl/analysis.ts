/** The analysis of a crawl, from its rows to its stored snapshot. */
import type { UnvisitedReason } from '$core/facts';
import { settingsSchema } from '$core/settings';
import { decodeSnapshot, encodeBase } from '$core/snapshot';
import type { Snapshot, SnapshotParts } from '$core/snapshot';
import { noteStep, readBase, retryOutage, storeSnapshot } from '$server/index';
import type { Crawl, Database, Lease } from '$server/index';
import { analyseParts } from './analysisParts';
import type { AnalysisStep } from './analysisParts';
import { analyseInThread, readInThread } from './analysisThreads';
import { analysisThread, baseThread, isBuilt } from '$server/threads';
import { shareParts } from './transfer';

export interface AnalysisOptions {
  /** Why addresses that nothing else speaks against have not been fetched. */
  left: UnvisitedReason;
  /** Given for an analysis beside a crawl: it ends it, and how far it is is not told. */
  signal?: AbortSignal;
}

async function readParts(db: Database, row: Crawl, { left, signal }: AnalysisOptions): Promise<SnapshotParts> {
  if (!isBuilt(baseThread)) return encodeBase(await retryOutage(() => readBase(db, row, left)));
  return readInThread({ url: db.url, row, left }, { signal, isBeside: signal !== undefined });
}

/** Reads a crawl back from its rows, analyses it and stores its snapshot. @throws lease_lost; when the signal comes */
export async function analyseCrawl(
  db: Database,
  lease: Lease,
  row: Crawl,
  { left, signal }: AnalysisOptions,
): Promise<Snapshot> {
  let telling = Promise.resolve();
  const tell = ({ step, done, of }: AnalysisStep) => {
    if (!signal) telling = telling.then(() => noteStep(db, lease, step, done, of)).catch(() => {});
  };
  const base = await readParts(db, row, { left, signal });
  signal?.throwIfAborted();
  const settings = settingsSchema.parse(row.settings);
  const found = !isBuilt(analysisThread)
    ? analyseParts({ parts: base, settings, port: { postMessage: tell } })
    : await analyseInThread({ parts: shareParts(base), settings }, tell, { signal, isBeside: signal !== undefined });
  signal?.throwIfAborted();
  await telling;
  const parts: SnapshotParts = new Map([...base, ...found]);
  await retryOutage(() => storeSnapshot(db, lease, parts));
  return decodeSnapshot(parts);
}
