export { sitemapChecker } from './check';
export { MAX_BYTES } from './entryFaults';
export type { CheckOptions, SitemapCheck, SitemapFault, SitemapKind } from './entryFaults';
export { readW3cDate } from './dates';
export { sitemapReader } from './read';
export type { Alternate, SitemapEntry } from './read';
export { isListable, LISTED, writeSitemaps } from './write';
export type { SitemapDocument, SitemapPage } from './write';
