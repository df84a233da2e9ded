export * from './crawls';
export {
  appDatabase,
  closeDatabase,
  databaseUrl,
  inRuns,
  isConnectionLoss,
  openDatabase,
  OperatorError,
  retryOutage,
} from './database';
export type { Database } from './database';
export * from './hosts';
export { importedAddresses, importsOf, importsOfCrawl, saveList, SETTINGS_LIST } from './imports';
export type { UrlImport } from './imports';
export {
  analysisProgress,
  endAnalysis,
  endCrawl,
  helpableCrawl,
  isLed,
  leaseAnalysis,
  leaseJob,
  LostLease,
  markStarted,
  noteStep,
  releaseCrawl,
  renewLease,
  requestAnalysis,
  setRank,
} from './jobs';
export type { AnalysisProgress, Ending, Lease } from './jobs';
export * from './lists';
export { prepareDatabase } from './prepare';
export * from './sites';
export * from './snapshots';
