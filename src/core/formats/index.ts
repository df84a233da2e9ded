export { changesCsv, findingChangesCsv, linkChangesCsv } from './compare';
export { csvPieces } from './csv';
export type { Cell } from './csv';
export { linksCsv, pagesCsv, summarize } from './export';
export { answerSheetMarkdown, ruleTables } from './rules';
export { listAs, tableFormats } from './table';
export type { TableFormat } from './table';
export { agreementCsv, sourcesCsv } from './sources';
export { sitemapDifference, sitemapsOf } from './sitemap';
