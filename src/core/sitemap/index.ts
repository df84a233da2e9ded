export { sitemapReader } from './read';
export type { SitemapEntry, SitemapEvents, SitemapReader } from './read';
