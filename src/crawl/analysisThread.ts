/** What runs in the threads of an analysis. */
import { analyseParts, deriveParts, reportParts } from './analysisParts';
import type { AnalysisTask, HalfTask, ReportTask } from './analysisParts';
import { shareParts } from './transfer';

export const analyse = (task: AnalysisTask) => shareParts(analyseParts(task));
export const derive = (task: HalfTask) => shareParts(deriveParts(task));
export const report = (task: ReportTask) => shareParts(reportParts(task));
