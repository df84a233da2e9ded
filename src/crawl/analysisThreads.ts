/** The threads in which crawls are read and analysed, so that leases are renewed meanwhile. */
import { MessageChannel } from 'node:worker_threads';
import { Piscina } from 'piscina';
import { failure } from '$core/errors';
import type { SnapshotParts } from '$core/snapshot';
import type { AnalysisStep, AnalysisTask } from './analysisParts';
import type { ReadAnswer, ReadTask } from './baseThread';
import type { ThreadData } from './priority';
import { analysisThread, baseThread } from '$server/threads';

/** MiB of heap for each thread; columns and links are held outside it. */
const HEAP_MB = 4096;

/** What an analysis in threads can be told. */
export interface ThreadOptions extends Partial<ThreadData> {
  /** Ends it: then it throws. */
  signal?: AbortSignal;
  /** The built program of its thread. */
  file?: string;
}

/** Works with a thread, which ends with the work and gives back all that it holds. */
async function withThread<T>(
  { file, isBeside = false }: Pick<ThreadOptions, 'isBeside'> & { file: string },
  work: (thread: Piscina) => Promise<T>,
): Promise<T> {
  const thread = new Piscina({
    filename: file,
    minThreads: 1,
    maxThreads: 1,
    workerData: { isBeside } satisfies ThreadData,
    resourceLimits: { maxOldGenerationSizeMb: HEAP_MB },
    recordTiming: false,
  });
  try {
    return await work(thread);
  } finally {
    await thread.destroy();
  }
}

/**
 * Has a thread read the base of a crawl, which may be large.
 * @returns its parts, in memory that threads share
 * @throws database_lost
 */
export async function readInThread(
  task: ReadTask,
  { signal, file = baseThread, isBeside }: ThreadOptions = {},
): Promise<SnapshotParts> {
  const options = { name: 'read', signal };
  const answer = await withThread({ file, isBeside }, (thread) => thread.run(task, options) as Promise<ReadAnswer>);
  if ('lost' in answer) throw failure('database_lost', answer.lost);
  return answer.parts;
}

/**
 * Analyses a base in a thread, and draws up its report.
 * @param task its parts in memory that threads share
 * @returns the parts that are stored besides those of the base
 */
export const analyseInThread = (
  task: Omit<AnalysisTask, 'port'>,
  onStep: (step: AnalysisStep) => void,
  { signal, file = analysisThread, isBeside }: ThreadOptions = {},
): Promise<SnapshotParts> =>
  withThread({ file, isBeside }, async (thread) => {
    const { port1, port2 } = new MessageChannel();
    port1.on('message', onStep);
    try {
      const options = { name: 'analyse', transferList: [port2], signal };
      return (await thread.run({ ...task, port: port2 }, options)) as SnapshotParts;
    } finally {
      port1.close();
    }
  });
