/** Changes to the current draft of a site, sent to the server. */
import { onMount } from 'svelte';
import { invalidateAll } from '$app/navigation';
import type { Edit, Step } from '$core/draft';
import { sayUndoable, say } from '../shell/say.svelte';
import { send } from '../shell/send';
import { texts } from './texts';

/** The current draft, as the header tells of it. */
export interface DraftSeen {
  id: number;
  name: string;
  version: number;
  edits: number;
  undoable: boolean;
  redoable: boolean;
}
/** Where a draft is changed: over which crawl, and what the person sees of it. */
export interface DraftPlace {
  site: { id: number };
  crawl: { id: number };
  draft: DraftSeen;
}

const UNDO_SECONDS = 8;
const WATCH_MS = 4000;

/** Sends a change, and shows what the draft is then. @returns whether it was made */
export async function changeDraft({ site }: Pick<DraftPlace, 'site'>, body: object): Promise<boolean> {
  const done = await send<DraftSeen>(`/sites/${site.id}/draft`, 'POST', body);
  // What another person has done meanwhile is seen in any case.
  await invalidateAll();
  return done !== null;
}

const step = (place: DraftPlace, made: Step) =>
  changeDraft(place, { do: 'step', step: made, crawl: place.crawl.id, version: place.draft.version });

export const undo = (place: DraftPlace) => changeDraft(place, { do: 'undo', version: place.draft.version });
export const redo = (place: DraftPlace) => changeDraft(place, { do: 'redo', version: place.draft.version });

/** Adds edits. @returns whether they could be made */
export async function addEdits(place: DraftPlace, edits: Edit[]): Promise<boolean> {
  if (!(await step(place, { kind: 'add', edits }))) return false;
  sayUndoable(texts.added(edits.length), UNDO_SECONDS, () => {
    // The version is that after the step; where others have changed the draft too, they are not undone.
    void changeDraft(place, { do: 'undo', version: place.draft.version + 1 });
  });
  return true;
}
export const switchEdits = (place: DraftPlace, edits: string[], on: boolean) =>
  step(place, { kind: 'switch', edits, on });
export const tickEdits = (place: DraftPlace, edits: string[], done: boolean) =>
  step(place, { kind: 'tick', edits, done });
export async function removeEdits(place: DraftPlace, edits: string[]): Promise<void> {
  if (await step(place, { kind: 'remove', edits })) say(texts.removed(edits.length));
}
export const noteEdit = (place: DraftPlace, edit: string, note: string) => step(place, { kind: 'note', edit, note });

export const notePage = (place: DraftPlace, page: string, note: string) =>
  step(place, { kind: 'page_note', page, note });

/** Looks now and then whether another person has changed the draft; to be called by a component. */
export function watchDraft(place: () => DraftPlace): void {
  onMount(() => {
    const timer = setInterval(async () => {
      if (document.hidden) return;
      const { site, draft } = place();
      const response = await fetch(`/sites/${site.id}/draft`).catch(() => null);
      const now = response?.ok ? ((await response.json()) as DraftSeen) : null;
      const seen = place().draft;
      // What this person has done meanwhile is no news.
      if (!now || seen !== draft || (now.id === seen.id && now.version === seen.version)) return;
      await invalidateAll();
      say(texts.someoneElse);
    }, WATCH_MS);
    return () => clearInterval(timer);
  });
}
