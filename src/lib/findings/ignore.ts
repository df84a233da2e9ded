/** Ignoring findings of a site, and reporting them again. */
import { invalidateAll } from '$app/navigation';
import { say, sayUndoable } from '../shell/say.svelte';
import { send } from '../shell/send';

/** How long the message offers to undo it; it can be reported again at any time. */
const OFFER_SECONDS = 10;

async function sendIgnored<T>(site: number, method: 'POST' | 'DELETE', body: object): Promise<T | null> {
  const done = await send<T>(`/sites/${site}/ignored`, method, body);
  if (done) await invalidateAll();
  return done;
}

/** Reports an ignored finding again. */
export async function reportAgain(site: number, id: number, name: string): Promise<void> {
  if (await sendIgnored(site, 'DELETE', { id })) say(`“${name}” is reported again.`);
}

/** Ignores a finding, everywhere or within a selection. @returns whether that was done */
export async function ignore(
  site: number,
  { id, name }: { id: string; name: string },
  within: string,
  reason: string,
): Promise<boolean> {
  const done = await sendIgnored<{ id: number }>(site, 'POST', { finding: id, within, reason });
  if (!done) return false;
  sayUndoable(`“${name}” is ignored in this site.`, OFFER_SECONDS, () => void reportAgain(site, done.id, name));
  return true;
}
