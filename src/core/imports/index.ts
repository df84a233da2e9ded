export { columnOfSource, importsBeside, pagesOfAddresses, unknownAddresses, withImports } from './match';
export type { MatchedSource, SnapshotWithImports } from './match';
export { firstColumn, importKinds, logColumns, ROWS_COLUMN, sourceName } from './source';
export type { ImportedSource, ImportKind } from './source';
