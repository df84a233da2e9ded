export {
  copyImports,
  importedAddresses,
  importsOf,
  importsOfCrawl,
  listedAddresses,
  newestEnded,
  rejectsOf,
  removeImport,
  saveList,
  SETTINGS_LIST,
  sourcesOfCrawl,
  useImports,
} from './imports';
export type { Reject, UrlImport } from './imports';
export { hitsOfPage } from './parts';
