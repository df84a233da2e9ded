export { withEdits } from './edits';
export type { AddedLink, AddedPage, Edits } from './edits';
