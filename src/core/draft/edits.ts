/** What a browser needs of edits, without what applies them. */
export { editText, opLabels } from './describe';
export { editFields, editOf, editOps } from './edit';
