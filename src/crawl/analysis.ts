/** The analysis of a crawl, from its rows to its stored snapshot. */
import { MessageChannel } from 'node:worker_threads';
import { Piscina } from 'piscina';
import { settingsSchema } from '$core/settings';
import { decodeSnapshot, encodeBase } from '$core/snapshot';
import type { Snapshot, SnapshotParts } from '$core/snapshot';
import { noteStep, readBase, retryOutage, storeSnapshot } from '$server/index';
import type { Crawl, Database, Lease } from '$server/index';
import { analyseParts } from './analysisParts';
import type { AnalysisStep, AnalysisTask } from './analysisParts';
import { hasThreads, threadFile } from './threads';

/** MiB of heap for the thread of an analysis; columns and links are held outside it. */
const HEAP_MB = 4096;

/** Runs an analysis in a thread, so that the lease of the crawl is renewed meanwhile, or in place where there are none. */
async function inThread(
  task: Omit<AnalysisTask, 'port'>,
  onStep: (step: AnalysisStep) => void,
): Promise<SnapshotParts> {
  if (!hasThreads()) return analyseParts({ ...task, port: { postMessage: (step: AnalysisStep) => onStep(step) } });
  const { port1, port2 } = new MessageChannel();
  port1.on('message', onStep);
  const pool = new Piscina({
    filename: threadFile,
    name: 'analyse',
    minThreads: 0,
    maxThreads: 1,
    resourceLimits: { maxOldGenerationSizeMb: HEAP_MB },
    recordTiming: false,
  });
  try {
    const buffers = new Set([...task.parts.values()].map(({ buffer }) => buffer as ArrayBuffer));
    return (await pool.run({ ...task, port: port2 }, { transferList: [port2, ...buffers] })) as SnapshotParts;
  } finally {
    port1.close();
    await pool.destroy();
  }
}

/** Reads a crawl back from its rows, analyses it and stores its snapshot. @throws LostLease */
export async function analyseCrawl(db: Database, lease: Lease, row: Crawl): Promise<Snapshot> {
  const base = await retryOutage(() => readBase(db, row));
  let telling = Promise.resolve();
  const tell = ({ step, done, of }: AnalysisStep) => {
    telling = telling.then(() => noteStep(db, lease, step, done, of)).catch(() => {});
  };
  const parts = await inThread({ parts: encodeBase(base), settings: settingsSchema.parse(row.settings) }, tell);
  await telling;
  await retryOutage(() => storeSnapshot(db, lease, parts));
  return decodeSnapshot(parts);
}
