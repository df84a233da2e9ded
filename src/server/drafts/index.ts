export { addDraft, changeDraft, currentDraft, deleteDraft, draftsOf, nameDraft, useDraft } from './drafts';
export type { Draft, DraftChange } from './drafts';
export { openDraft } from './open';
export type { OpenDraft } from './open';
