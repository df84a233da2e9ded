export {
  appDatabase,
  closeDatabase,
  databaseUrl,
  isConnectionLoss,
  openDatabase,
  OperatorError,
  prepareDatabase,
} from './database';
export type { Database } from './database';
export { crawlStore, UNLINKED_RANK } from './crawlStore';
export type { CrawlStore, Discovery, PageResult, SitemapOutcome, Turn } from './crawlStore';
export { heartbeat, leaseJob, markEnded, markStarted, releaseJob } from './jobs';
export type { Ending, Heartbeat, Progress } from './jobs';
export {
  addCrawl,
  continueCrawl,
  crawlsOf,
  filesOf,
  getCrawl,
  getSite,
  requestStop,
  saveSite,
  sitesWithNewestCrawl,
} from './sites';
export type { Crawl, Site } from './sites';
export { makeSnapshot, openSnapshot } from './snapshots';
export { listWindow, orderedPages, selectPages, walkOf } from './views';
export type { ListWindow, Row, Selected } from './views';
