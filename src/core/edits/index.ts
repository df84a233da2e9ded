export { editNumbers, groupByEdit, linkBlocks } from './edits';
export type { Edit } from './edits';
