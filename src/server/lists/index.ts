export { listOf, listSummaries, listWindow, orderedRows, selectLinks, selectPages, valuesOf } from './lists';
export type { ListView } from './lists';
