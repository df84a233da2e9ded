export { listOf, listSummaries, listWindow, orderedRows, selectPages, valuesOf } from './lists';
export type { ListView } from './lists';
