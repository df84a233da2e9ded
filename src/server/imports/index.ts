export {
  copyImports,
  importedAddresses,
  importOfFile,
  importsOf,
  importsOfCrawl,
  listedAddresses,
  newestEnded,
  rejectsOf,
  removeImport,
  saveImport,
  saveList,
  SETTINGS_LIST,
  sourcesOfCrawl,
  useImports,
} from './imports';
export type { NewImport, Reject, UrlImport } from './imports';
export { hitsOfPage } from './parts';
