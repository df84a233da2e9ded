/** What runs in the thread of an analysis. */
import { analyseParts } from './analysisParts';
import type { AnalysisTask } from './analysisParts';
import { give } from './transfer';

/** Analyses a crawl. */
export function analyse(task: AnalysisTask) {
  const parts = analyseParts(task);
  return give(parts, parts.values());
}
