import type { DraftSeen } from '$lib/draft/draft';
import type { Draft } from '$server/index';

/** What the header says of the current draft; nothing has been drafted where its number is 0. */
export const draftBrief = (draft: Draft | null): DraftSeen => ({
  id: draft?.id ?? 0,
  name: draft?.name ?? '',
  version: draft?.version ?? 0,
  edits: draft?.edits.length ?? 0,
  undoable: draft?.steps.some(({ undone }) => !undone) ?? false,
  redoable: draft?.steps.some(({ undone }) => undone) ?? false,
});
