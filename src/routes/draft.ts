import type { Draft } from '$server/index';

/** What the header says of the current draft; nothing has been drafted where its number is 0. */
export interface DraftBrief {
  id: number;
  name: string;
  version: number;
  edits: number;
  undoable: boolean;
  redoable: boolean;
}

export const draftBrief = (draft: Draft | null): DraftBrief => ({
  id: draft?.id ?? 0,
  name: draft?.name ?? '',
  version: draft?.version ?? 0,
  edits: draft?.edits.length ?? 0,
  undoable: draft?.steps.some(({ undone }) => !undone) ?? false,
  redoable: draft?.steps.some(({ undone }) => undone) ?? false,
});
