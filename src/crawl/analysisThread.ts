/** What runs in the thread of an analysis. */
import { workerData } from 'node:worker_threads';
import { analyseParts } from './analysisParts';
import type { AnalysisTask } from './analysisParts';
import { standBack } from './priority';
import type { ThreadData } from './priority';
import { shareParts } from './transfer';

if ((workerData as ThreadData).isBeside) standBack();

export const analyse = (task: AnalysisTask) => shareParts(analyseParts(task));
