/** What runs in the threads of an analysis. */
import { workerData } from 'node:worker_threads';
import { analyseParts, deriveParts, reportParts } from './analysisParts';
import type { AnalysisTask, HalfTask, ReportTask } from './analysisParts';
import { standBack } from './priority';
import type { ThreadData } from './priority';
import { shareParts } from './transfer';

if ((workerData as ThreadData).isBeside) standBack();

export const analyse = (task: AnalysisTask) => shareParts(analyseParts(task));
export const derive = (task: HalfTask) => shareParts(deriveParts(task));
export const report = (task: ReportTask) => shareParts(reportParts(task));
