export { editNumbers, groupByEdit } from './edits';
export type { Edit } from './edits';
