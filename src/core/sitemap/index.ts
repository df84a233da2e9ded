export { sitemapChecker } from './check';
export type { SitemapChecker } from './check';
export { MAX_BYTES, MAX_LOC, MAX_URLS, NAMESPACE, sitemapFaults } from './entryFaults';
export type { CheckOptions, SitemapCheck, SitemapFault, SitemapFaultId, SitemapKind } from './entryFaults';
export { readW3cDate } from './dates';
export { sitemapReader } from './read';
export type { Alternate, SitemapEntry, SitemapEvents, SitemapReader } from './read';
export { isListable, LISTED, writeSitemaps } from './write';
export type { SitemapDocument, SitemapPage } from './write';
