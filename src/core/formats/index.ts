export { csvRow } from './csv';
export type { Cell } from './csv';
export { linksCsv, pageColumns, pagesCsv, summarize } from './export';
export type { Summary } from './export';
export { listAs, tableFormats } from './table';
export type { TableFormat } from './table';
export { inPieces } from './pieces';
