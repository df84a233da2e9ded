export {
  analysisProgress,
  endAnalysis,
  endCrawl,
  helpableCrawl,
  isLed,
  leaseAnalysis,
  leaseJob,
  lockLease,
  markStarted,
  noteStep,
  releaseCrawl,
  renewLease,
  requestAnalysis,
  setRank,
} from './jobs';
export type { Ending, Lease } from './jobs';
export { BEAT_MS, crawlTrouble, hasWorker, releaseDead, sayAlive, sayGone } from './workforce';
