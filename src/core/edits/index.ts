export { groupByAnchor, groupByEdit } from './edits';
export { groupEqual } from './group';
export type { Groups } from './group';
