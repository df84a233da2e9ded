/** What the screen and the files of the hand-over have in common. */
import { appDatabase, getSite } from '$server/index';
import type { HandOver } from '$server/index';
import { crawlOf, draftOver, siteOf } from './crawl';
import { settingsSchema } from '$core/settings';

/** The edits of the current draft that count and are not on the website yet; null where there is no draft. */
export async function handOverFor(locals: App.Locals): Promise<(HandOver & { name: string }) | null> {
  const db = appDatabase();
  const { id, start } = siteOf(locals);
  const over = await draftOver(locals);
  if (!over) return null;
  const site = await getSite(db, id);
  return {
    crawl: crawlOf(locals),
    view: over.crawled,
    settings: over.settings,
    edits: over.draft.edits.filter((_, i) => over.states[i].state === 'applied'),
    notes: over.draft.notes,
    editing: settingsSchema.parse(site!.settings).editing,
    name: over.draft.name || new URL(start).host,
  };
}
