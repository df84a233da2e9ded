/** The analysis of a crawl from parts to parts, as threads do it. */
import type { MessagePort } from 'node:worker_threads';
import { analyse, derivations } from '$core/analysis';
import { reportOf } from '$core/report';
import type { CrawlSettings } from '$core/settings';
import { viewOf } from '$core/view';
import { decodeBase, derivedOf, encodeDerived, FINDINGS_PART, REPORT_PART } from '$core/snapshot';
import type { SnapshotParts } from '$core/snapshot';

/** How far an analysis is. */
export interface AnalysisStep {
  step: string;
  done: number;
  of: number;
}

/** Its parts are those that `encodeBase` gives. */
export interface AnalysisTask {
  parts: SnapshotParts;
  settings: CrawlSettings;
  /** Is told of each step. */
  port: Pick<MessagePort, 'postMessage'>;
}

/** Analyses a base and draws up its report. @returns the parts that are stored besides those of the base */
export function analyseParts({ parts, settings, port }: AnalysisTask): SnapshotParts {
  // Drawing up the report is one step more.
  const tell = (step: string, done: number, of: number) =>
    port.postMessage({ step, done, of: of + 1 } satisfies AnalysisStep);
  const snapshot = analyse(decodeBase(parts), settings, tell);
  tell('report', derivations.length, derivations.length);
  const { report, pages } = reportOf(viewOf(snapshot), settings);
  return new Map([
    ...encodeDerived(derivedOf(snapshot)),
    [FINDINGS_PART, pages],
    [REPORT_PART, new TextEncoder().encode(JSON.stringify(report))],
  ]);
}
