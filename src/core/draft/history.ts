/** What is done to a draft, step by step; its edits follow from the steps that are not undone. */
import type { Edit } from './edit';

/** Edits are named by the number of the step that adds them and their place in it, as `12.0`. */
export type Step =
  | { kind: 'add'; edits: readonly Edit[] }
  | { kind: 'switch'; edits: readonly string[]; on: boolean }
  | { kind: 'tick'; edits: readonly string[]; done: boolean }
  | { kind: 'remove'; edits: readonly string[] }
  | { kind: 'note'; edit: string; note: string }
  | { kind: 'page_note'; page: string; note: string };

/** A step as it was made. */
export interface MadeStep {
  id: number;
  at: Date;
  step: Step;
  undone: boolean;
}

export interface DraftEdit extends Edit {
  id: string;
  at: Date;
  /** Whether it counts; edits can be switched off for a while. */
  on: boolean;
  /** Ticked off by whoever makes it on the website. */
  done: boolean;
  note: string;
}

/** The edits that steps leave, the first one made first. */
export function editsAfter(steps: readonly MadeStep[]): DraftEdit[] {
  const edits = new Map<string, DraftEdit>();
  const change = (ids: readonly string[], changed: Partial<DraftEdit>) => {
    for (const id of ids) {
      const edit = edits.get(id);
      if (edit) edits.set(id, { ...edit, ...changed });
    }
  };
  for (const { id, at, step, undone } of steps) {
    if (undone) continue;
    if (step.kind === 'add')
      step.edits.forEach((edit, i) =>
        edits.set(`${id}.${i}`, { ...edit, id: `${id}.${i}`, at, on: true, done: false, note: '' }),
      );
    else if (step.kind === 'switch') change(step.edits, { on: step.on });
    else if (step.kind === 'tick') change(step.edits, { done: step.done });
    else if (step.kind === 'note') change([step.edit], { note: step.note });
    else if (step.kind === 'remove') for (const one of step.edits) edits.delete(one);
  }
  return [...edits.values()];
}

/** The notes on pages that steps leave, by address. */
export function notesAfter(steps: readonly MadeStep[]): Map<string, string> {
  const notes = new Map<string, string>();
  for (const { step, undone } of steps) if (!undone && step.kind === 'page_note') notes.set(step.page, step.note);
  for (const [page, note] of notes) if (note === '') notes.delete(page);
  return notes;
}
