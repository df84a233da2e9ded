/** The analysis of a crawl, from its rows to its stored snapshot. */
import { MessageChannel } from 'node:worker_threads';
import { Piscina } from 'piscina';
import type { UnvisitedReason } from '$core/facts';
import { settingsSchema } from '$core/settings';
import { decodeSnapshot, encodeBase } from '$core/snapshot';
import type { Snapshot, SnapshotParts } from '$core/snapshot';
import { noteStep, readBase, retryOutage, storeSnapshot } from '$server/index';
import type { Crawl, Database, Lease } from '$server/index';
import { analyseParts } from './analysisParts';
import type { AnalysisStep, AnalysisTask } from './analysisParts';
import { analysisThread, isBuilt } from './threads';

/** MiB of heap for the thread of an analysis; columns and links are held outside it. */
const HEAP_MB = 4096;
/** Up to so many links a site is analysed in place: a thread would take about as long to start as to do it. */
const MAX_LINKS_IN_PLACE = 100_000;

/**
 * Runs an analysis in a thread, so that the lease of the crawl is renewed meanwhile. The parts are given away to it.
 * @param file the built program of the thread
 * @throws when the signal comes
 */
export async function analyseInThread(
  task: Omit<AnalysisTask, 'port'>,
  onStep: (step: AnalysisStep) => void,
  signal?: AbortSignal,
  file = analysisThread,
): Promise<SnapshotParts> {
  const thread = new Piscina({
    filename: file,
    name: 'analyse',
    minThreads: 1,
    maxThreads: 1,
    resourceLimits: { maxOldGenerationSizeMb: HEAP_MB },
    recordTiming: false,
  });
  const { port1, port2 } = new MessageChannel();
  port1.on('message', onStep);
  try {
    const buffers = new Set([...task.parts.values()].map(({ buffer }) => buffer as ArrayBuffer));
    const options = { transferList: [port2, ...buffers], signal };
    return (await thread.run({ ...task, port: port2 }, options)) as SnapshotParts;
  } finally {
    port1.close();
    await thread.destroy();
  }
}

export interface AnalysisOptions {
  /** Why addresses that nothing else speaks against have not been fetched. */
  left: UnvisitedReason;
  /** Given for an analysis beside a crawl: it ends it, and how far it is is not told. */
  signal?: AbortSignal;
}

/** Reads a crawl back from its rows, analyses it and stores its snapshot. @throws LostLease; when the signal comes */
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
  const base = await retryOutage(() => readBase(db, row, left));
  signal?.throwIfAborted();
  const task = { parts: encodeBase(base), settings: settingsSchema.parse(row.settings) };
  // What goes on beside a crawl must not hold it up.
  const isSmall = !signal && base.links.target.length <= MAX_LINKS_IN_PLACE;
  const parts =
    isSmall || !isBuilt(analysisThread)
      ? analyseParts({ ...task, port: { postMessage: tell } })
      : await analyseInThread(task, tell, signal);
  signal?.throwIfAborted();
  await telling;
  await retryOutage(() => storeSnapshot(db, lease, parts));
  return decodeSnapshot(parts);
}
