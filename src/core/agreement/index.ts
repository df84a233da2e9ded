export { agreementOf, foldersOf, importCells, MAX_SOURCES, sourceBook } from './agreement';
export type { AgreementRow, FolderRow, SourceBook } from './agreement';
