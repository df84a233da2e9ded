/** What is asked of the worker of the robots bench, and what it answers. */
import type { AnalysisSettings } from '$core/analysis';
import type { RuleChoice } from '$core/robots';
import type { JudgedDraft, RobotsEffectCounts } from '$core/robotsEffect';

export interface BenchStart {
  /** Where the crawl is. */
  base: string;
  origin: string;
  /** The robots.txt that was fetched; null where there is none. */
  before: string | null;
  settings: AnalysisSettings;
}

export type BenchQuestion =
  | { ask: 'begin'; given: BenchStart }
  | { ask: 'judge'; text: string; token: string }
  | { ask: 'effect'; text: string; token: string }
  | { ask: 'decided'; text: string; token: string; line: number }
  | { ask: 'compose'; picked: string[] };

export type BenchAnswer =
  | { to: 'begin' }
  | { to: 'judge'; judged: JudgedDraft }
  | { to: 'effect'; counts: RobotsEffectCounts; routesLost: string[] }
  | { to: 'decided'; count: number; addresses: string[] }
  | { to: 'compose'; choices: RuleChoice[] };

type AnswerTo<A> = Extract<BenchAnswer, { to: A }>;

/** Starts a worker. What is asked of it is answered in turn. */
function startWorker() {
  const worker = new Worker(new URL('./robotsWorker.ts', import.meta.url), { type: 'module' });
  const waiting = new Map<number, { done: (answer: BenchAnswer) => void; failed: (error: Error) => void }>();
  let last = 0;
  worker.onmessage = ({ data }: MessageEvent<{ id: number; answer?: BenchAnswer; failed?: string }>) => {
    const who = waiting.get(data.id);
    waiting.delete(data.id);
    if (data.answer) who?.done(data.answer);
    else who?.failed(new Error(data.failed));
  };
  const fail = (message: string) => {
    for (const { failed } of waiting.values()) failed(new Error(message));
    waiting.clear();
  };
  worker.onerror = ({ message }) => fail(message);
  return {
    ask: <Q extends BenchQuestion>(question: Q): Promise<AnswerTo<Q['ask']>> =>
      new Promise((done, failed) => {
        waiting.set(++last, { done: done as (answer: BenchAnswer) => void, failed });
        worker.postMessage({ id: last, question });
      }),
    close: () => {
      worker.terminate();
      fail('closed');
    },
  };
}

/**
 * Opens the bench of a host: one worker judges, and another works out what drafts cost, so that typing never waits for
 * the seconds that this takes on a large site.
 */
export function openBench(given: BenchStart) {
  const judging = startWorker();
  let costing: ReturnType<typeof startWorker> | null = null;
  return {
    begun: judging.ask({ ask: 'begin', given }),
    ask: judging.ask,
    effect: (text: string, token: string) => {
      if (!costing) {
        costing = startWorker();
        // Where it cannot begin, the effect fails too.
        costing.ask({ ask: 'begin', given }).catch(() => {});
      }
      return costing.ask({ ask: 'effect', text, token });
    },
    close: () => {
      judging.close();
      costing?.close();
    },
  };
}
export type Bench = ReturnType<typeof openBench>;
