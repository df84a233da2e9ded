/** The analysis of a crawl from parts to parts, as threads do it. */
import type { MessagePort } from 'node:worker_threads';
import { analyse, analyseHalf } from '$core/analysis';
import type { Half } from '$core/analysis';
import { reportOf } from '$core/report';
import type { CrawlSettings } from '$core/settings';
import { decodeBase, decodeSnapshot, derivedOf, encodeDerived, FINDINGS_PART, REPORT_PART } from '$core/snapshot';
import type { Snapshot, SnapshotParts } from '$core/snapshot';

/** How far an analysis is. */
export interface AnalysisStep {
  step: string;
  done: number;
  of: number;
}

interface Task {
  parts: SnapshotParts;
  settings: CrawlSettings;
}

/** Its parts are those that `encodeBase` gives. */
export interface AnalysisTask extends Task {
  /** Is told of each step. */
  port: Pick<MessagePort, 'postMessage'>;
}

export interface HalfTask extends AnalysisTask {
  half: Half;
}

/** Its parts are those of a whole snapshot. */
export type ReportTask = Task;

const teller = (port: AnalysisTask['port'], more: number) => (step: string, done: number, of: number) =>
  port.postMessage({ step, done, of: of + more } satisfies AnalysisStep);

/** The parts in which the report of a snapshot is stored. */
function encodeReport(snapshot: Snapshot, settings: CrawlSettings): SnapshotParts {
  const { report, pages } = reportOf(snapshot, settings);
  return new Map([
    [FINDINGS_PART, pages],
    [REPORT_PART, new TextEncoder().encode(JSON.stringify(report))],
  ]);
}

/** Analyses a base and draws up its report. @returns the parts that are stored besides those of the base */
export function analyseParts({ parts, settings, port }: AnalysisTask): SnapshotParts {
  // Drawing up the report is one step more.
  const tell = teller(port, 1);
  const snapshot = analyse(decodeBase(parts), settings, tell);
  tell('report', 1, 0);
  return new Map([...encodeDerived(derivedOf(snapshot)), ...encodeReport(snapshot, settings)]);
}

/** Works the derived facts of one half of the analysis out. @returns their parts */
export const deriveParts = ({ parts, settings, port, half }: HalfTask): SnapshotParts =>
  encodeDerived(analyseHalf(decodeBase(parts), settings, half, teller(port, 0)));

/** Draws up the report of a snapshot. @returns the parts in which it is stored */
export const reportParts = ({ parts, settings }: ReportTask): SnapshotParts =>
  encodeReport(decodeSnapshot(parts), settings);
