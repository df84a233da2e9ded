export {
  appDatabase,
  closeDatabase,
  databaseUrl,
  inRuns,
  isConnectionLoss,
  openDatabase,
  OperatorError,
  outlastingOutage,
  prepareDatabase,
} from './database';
export type { Database } from './database';
export { crawlStore } from './crawlStore';
export type { CrawlStore, Discovery, PageResult, SitemapOutcome, Source } from './crawlStore';
export { beatCrew, crewSize, joinCrew, leaveCrew, LostMembership } from './crew';
export { frontierOf, startIsRead } from './frontier';
export type { Frontier, Turn } from './frontier';
export { helpableCrawl, isLed, leaseJob, markEnded, markStarted, releaseJob, renewJob, setRank } from './jobs';
export type { Ending, Progress } from './jobs';
export { heldHosts, holdHost, reserveRequests } from './pace';
export type { HeldHost } from './pace';
export { forgetSelection, keepSelection, keptSelections } from './kept';
export type { KeptSelection } from './kept';
export { pageDetails, pageSource } from './pageDetails';
export { ASIDE_RANK, EXTERNAL_RANK, RESOURCE_RANK, UNLINKED_RANK } from './ranks';
export {
  addCrawl,
  askCrew,
  continueCrawl,
  crawlCookies,
  crawlsOf,
  filesOf,
  getCrawl,
  getSite,
  saveCookies,
  saveSite,
  siteByStart,
  secretsOf,
  sitesWithNewestCrawl,
} from './sites';
export type { Crawl, Site } from './sites';
export { findingsOfPage, makeSnapshot, openReport, openSnapshot, snapshotPart, storedReport } from './snapshots';
export { trapReview, trapsOf } from './traps';
export type { TrapReview } from './traps';
export { recrawl } from './recrawl';
export { closedWarning, watchCrawl } from './watch';
export { listOf, listSummaries, listWindow, orderedRows, selectPages, valuesOf } from './views';
export type { ListView } from './views';
