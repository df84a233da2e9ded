export { fileOf, unifiedDiff } from './diff';
export type { EditedFile } from './diff';
export {
  bySource,
  handOverCsv,
  handOverHtml,
  handOverMarkdown,
  redirectsApache,
  redirectsCsv,
  redirectsNginx,
  redirectsOf,
} from './files';
export type { HandOverPage } from './files';
export { editSource } from './source';
export type { PageSource, SourceEdit } from './source';
