export { agreementOf, foldersOf, importCells, MAX_SOURCES, sourceBook, sourceBookOf, sourceSizesOf } from './agreement';
export type { AgreementRow, FolderRow } from './agreement';
