export {
  addCrawl,
  crawlCookies,
  crawlSettings,
  crawlsOf,
  crawlState,
  filesOf,
  getCrawl,
  newestCrawls,
  noteProgress,
  recentCrawls,
  requestCrawl,
  resumeCrawl,
  saveCookies,
} from './crawls';
export type { Crawl, CrawlState } from './crawls';
export { fetchToo } from './fetchToo';
export { frontierOf, startIsRead } from './frontier';
export type { Frontier, QueuedUrl } from './frontier';
export { lastmodsOf } from './lastmods';
export { addPlannedCrawl } from './planned';
export { linkBlock, pageDetails, pageLines, pageSource, storedSource } from './pages';
export { closedWarning, watchCrawl } from './progress';
export { ASIDE_RANK, EXTERNAL_RANK, RESOURCE_RANK, UNLINKED_RANK } from './ranks';
export { databaseBytes, measureSpace } from './space';
export { recrawl } from './recrawl';
export { nextSitemaps, queueSitemaps, sitemapState } from './sitemapQueue';
export type { QueuedSitemap } from './sitemapQueue';
export { forgetStore, openStore, saveListings, savePages, saveRobots, saveSitemap, seedFrontier } from './store';
export type { CrawlStore, Discovery, PageResult, Source } from './store';
export { trapReview, trapsOf } from './traps';
export type { TrapReview } from './traps';
export { watchProgress } from './watching';
export { joinCrawl, leaveCrawl, renewWorker, workerCount } from './workers';
export { likenessTo } from './likeness';
