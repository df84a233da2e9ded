/** The analysis of a crawl from parts to parts, as a thread does it. */
import type { MessagePort } from 'node:worker_threads';
import { analyse } from '$core/analysis';
import { reportOf } from '$core/report';
import type { CrawlSettings } from '$core/settings';
import { decodeBase, encodeDerived, FINDINGS_PART, REPORT_PART } from '$core/snapshot';
import type { SnapshotParts } from '$core/snapshot';

/** How far an analysis is. */
export interface AnalysisStep {
  step: string;
  done: number;
  of: number;
}

export interface AnalysisTask {
  /** As `encodeBase` gives them. */
  parts: SnapshotParts;
  settings: CrawlSettings;
  /** Is told of each step. */
  port: Pick<MessagePort, 'postMessage'>;
}

/** Analyses a base and draws up its report. @returns all parts that are stored of the snapshot */
export function analyseParts({ parts, settings, port }: AnalysisTask): SnapshotParts {
  const tell = (step: string, done: number, of: number) => port.postMessage({ step, done, of } satisfies AnalysisStep);
  // Drawing up the report is one step more.
  const snapshot = analyse(decodeBase(parts), settings, (step, done, of) => tell(step, done, of + 1));
  tell('report', 1, 1);
  const { report, pages } = reportOf(snapshot, settings);
  const all: SnapshotParts = new Map([...parts, ...encodeDerived(snapshot)]);
  all.set(FINDINGS_PART, pages);
  all.set(REPORT_PART, new TextEncoder().encode(JSON.stringify(report)));
  return all;
}
