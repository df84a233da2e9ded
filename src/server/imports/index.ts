export {
  copyImports,
  importedAddresses,
  importsOf,
  importsOfCrawl,
  listedNumbers,
  saveList,
  SETTINGS_LIST,
  useImports,
} from './imports';
export type { UrlImport } from './imports';
