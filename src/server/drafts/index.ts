export { addDraft, changeDraft, currentDraft, deleteDraft, draftOfSite, draftsOf, nameDraft, useDraft } from './drafts';
export type { Draft, DraftChange } from './drafts';
export { editedFiles, handOverPages, MOST_FILES } from './handOver';
export type { HandOver } from './handOver';
export { besideView, openDraft } from './open';
export type { OpenDraft } from './open';
