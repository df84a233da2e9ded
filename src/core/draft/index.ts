export { draftOf } from './draft';
export type { Drafted } from './draft';
export { readEdits } from './file';
export type { FileEdit, FileFault } from './file';
export { editFields, editOf, editOps } from './edit';
export type { Edit, EditOp, Refusal } from './edit';
