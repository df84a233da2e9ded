export { columnOfSource, importColumns, isoTime, matchSources, unknownAddresses, unknownOf, withHits } from './match';
export type { MatchedSource } from './match';
export { DATE_ENDING, firstColumn, importKinds, isDateColumn, ROWS_COLUMN, sourceName } from './source';
export type { ImportedSource, ImportKind } from './source';
