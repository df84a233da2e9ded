export { draftOf } from './draft';
export type { Drafted } from './draft';
export { editFields, editOf, editOps } from './edit';
export type { Edit, EditOp, Refusal } from './edit';
