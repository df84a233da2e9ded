/** What is asked of the worker of the robots bench, and what it answers. */
import type { AnalysisSettings } from '$core/analysis';
import type { RuleChoice } from '$core/robots';
import type { JudgedDraft, RobotsEffectCounts } from '$core/robotsEffect';
import { askWorker } from '../worker';

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

const startWorker = () =>
  askWorker<BenchQuestion, BenchAnswer>(new Worker(new URL('./robotsWorker.ts', import.meta.url), { type: 'module' }));

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
