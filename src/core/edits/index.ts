export { withEdits } from './edits';
export type { Edits } from './edits';
