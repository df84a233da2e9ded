export {
  columnOfSource,
  importsBeside,
  isoTime,
  pagesOfAddresses,
  unknownAddresses,
  unknownOf,
  withImports,
} from './match';
export type { MatchedSource, SnapshotWithImports } from './match';
export { DATE_ENDING, firstColumn, importKinds, isDateColumn, logColumns, ROWS_COLUMN, sourceName } from './source';
export type { ImportedSource, ImportKind } from './source';
