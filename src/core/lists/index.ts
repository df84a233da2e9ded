export { columnOf, listColumns, listedOf, listNames } from './columns';
export type { ListColumn, ListName } from './columns';
export { anchorList, editList, hostList, linkList } from './links';
export { orderRows } from './order';
export type { Cells, CellValue, List, ListRow, ListWindow } from './list';
export { pageGroups, pageList } from './pages';
export { summaryOf } from './summary';
export type { Bin } from './summary';
export { importColumnName, numbersOfSource } from './importColumns';
