export { MAX_BYTES, MAX_LOC, MAX_URLS, NAMESPACE, sitemapChecker, sitemapFaults } from './check';
export type { CheckOptions, SitemapCheck, SitemapChecker, SitemapFault, SitemapFaultId, SitemapKind } from './check';
export { readW3cDate } from './dates';
export { sitemapReader } from './read';
export type { Alternate, SitemapEntry, SitemapEvents, SitemapReader } from './read';
export { isListable, LISTED, writeSitemaps } from './write';
export type { SitemapDocument, SitemapPage } from './write';
