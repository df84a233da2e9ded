export {
  analysisProgress,
  endJob,
  leaseWaiting,
  noteStep,
  requestAnalysis,
  requestTexts,
  textsProgress,
} from './analysisJobs';
export { endCrawl, markStarted, releaseCrawl, setRank } from './crawlJobs';
export type { Ending } from './crawlJobs';
export { helpableCrawl, isLed, leaseJob, lockLease, renewLease } from './leases';
export type { Lease } from './leases';
export { BEAT_MS, crawlTrouble, hasWorker, releaseDead, sayAlive, sayGone } from './workforce';
