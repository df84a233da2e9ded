/** The threads in which larger crawls are read and analysed, so that leases are renewed meanwhile. */
import { MessageChannel } from 'node:worker_threads';
import { Piscina } from 'piscina';
import { halves } from '$core/analysis';
import type { SnapshotParts } from '$core/snapshot';
import type { AnalysisStep, AnalysisTask } from './analysisParts';
import type { ReadTask } from './baseThread';
import type { ThreadData } from './priority';
import { analysisThread, baseThread } from './threads';

/** MiB of heap for each thread; columns and links are held outside it. */
const HEAP_MB = 4096;
/** Links from which on half of the work is worth the start of a second thread. */
const TWO_THREADS = 500_000;

type OnStep = (step: AnalysisStep) => void;

/** What an analysis in threads can be told. */
export interface ThreadOptions extends Partial<ThreadData> {
  /** Ends it: then it throws. */
  signal?: AbortSignal;
  /** The built program of its threads. */
  file?: string;
  /** From how many links on two of them share the work. */
  twoThreads?: number;
}

/** Works with threads, which end with the work and give back all that they hold. */
async function withThreads<T>(
  { file, isBeside = false }: Pick<ThreadOptions, 'isBeside'> & { file: string },
  most: number,
  work: (threads: Piscina) => Promise<T>,
): Promise<T> {
  const threads = new Piscina({
    filename: file,
    minThreads: 1,
    maxThreads: most,
    workerData: { isBeside } satisfies ThreadData,
    resourceLimits: { maxOldGenerationSizeMb: HEAP_MB },
    recordTiming: false,
  });
  try {
    return await work(threads);
  } finally {
    await threads.destroy();
  }
}

/** Has a thread read the base of a crawl, which may be large. @returns its parts, in memory that threads share */
export const readInThread = (
  task: ReadTask,
  { signal, file = baseThread, isBeside }: ThreadOptions = {},
): Promise<SnapshotParts> =>
  withThreads(
    { file, isBeside },
    1,
    (threads) => threads.run(task, { name: 'read', signal }) as Promise<SnapshotParts>,
  );

/** For each thread a function that is told of its steps; what they come to together is passed on. */
function stepsTogether(threads: number, onStep: OnStep): OnStep[] {
  const latest = Array.from({ length: threads }, () => ({ done: 0, of: 0 }));
  const sum = (of: 'done' | 'of') => latest.reduce((total, step) => total + step[of], 0);
  return latest.map((_, thread) => ({ step, done, of }) => {
    latest[thread] = { done, of };
    // Drawing up the report is one step more.
    onStep({ step, done: sum('done'), of: sum('of') + 1 });
  });
}

/**
 * Analyses a base in a thread, or in two where there are many links, and draws up its report.
 * @param task its parts in memory that threads share
 * @returns the parts that are stored besides those of the base
 */
export function analyseInThreads(
  { parts, settings }: Omit<AnalysisTask, 'port'>,
  onStep: OnStep,
  { signal, file = analysisThread, isBeside, twoThreads = TWO_THREADS }: ThreadOptions = {},
): Promise<SnapshotParts> {
  const tasks = parts.get('links.kind')!.length < twoThreads ? [null] : halves;
  return withThreads({ file, isBeside }, tasks.length, async (threads) => {
    const run = async (name: 'analyse' | 'derive' | 'report', task: object, told: OnStep = () => {}) => {
      const { port1, port2 } = new MessageChannel();
      port1.on('message', told);
      try {
        const options = { name, transferList: [port2], signal };
        return (await threads.run({ settings, port: port2, ...task }, options)) as SnapshotParts;
      } finally {
        port1.close();
      }
    };
    if (tasks.length === 1) return run('analyse', { parts }, onStep);
    const told = stepsTogether(tasks.length, onStep);
    const derived = await Promise.all(tasks.map((half, thread) => run('derive', { parts, half }, told[thread])));
    const all: SnapshotParts = new Map(derived.flatMap((some) => [...some]));
    onStep({ step: 'report', done: 1, of: 1 });
    return new Map([...all, ...(await run('report', { parts: new Map([...parts, ...all]) }))]);
  });
}
