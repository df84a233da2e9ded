export * from './watchList';
export * from './crawls';
export * from './comparisons';
export {
  appDatabase,
  closeDatabase,
  databaseUrl,
  inRuns,
  isConnectionLoss,
  isDiskFull,
  openDatabase,
  retryOutage,
} from './database';
export type { Database } from './database';
export { ageDemo, demoSettings, wakeDemo } from './demo';
export { diskTrouble } from './disk';
export * from './hosts';
export {
  hitsOfPage,
  importedAddresses,
  importsOf,
  importsOfCrawl,
  rejectsOf,
  removeImport,
  saveList,
  SETTINGS_LIST,
} from './imports';
export type { Reject, UrlImport } from './imports';
export { importFile, previewFile } from './imports/readFile';
export type { ImportOutcome } from './imports/readFile';
export { crawlSourceName, importCrawl } from './imports/importCrawl';
export {
  analysisProgress,
  BEAT_MS,
  crawlTrouble,
  endAnalysis,
  endCrawl,
  hasWorker,
  helpableCrawl,
  isLed,
  leaseAnalysis,
  leaseJob,
  markStarted,
  noteStep,
  releaseCrawl,
  releaseDead,
  renewLease,
  requestAnalysis,
  sayAlive,
  sayGone,
  setRank,
} from './jobs';
export type { Ending, Lease } from './jobs';
export * from './lists';
export * from './liveChecks';
export { logTo } from './log';
export { prepareDatabase } from './prepare';
export * from './removal';
export * from './schedules';
export * from './sites';
export * from './snapshots';
