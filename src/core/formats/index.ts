export { csvPieces } from './csv';
export type { Cell } from './csv';
export { linksCsv, pagesCsv, summarize } from './export';
export type { Summary } from './export';
export { listAs, tableFormats } from './table';
export type { TableFormat } from './table';
export { agreementCsv, sourcesCsv } from './sources';
export { sitemapsOf } from './sitemap';
export type { SitemapRequest } from './sitemap';
