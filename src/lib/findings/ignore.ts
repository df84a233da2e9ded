/** Ignoring findings of a site, and reporting them again. */
import { invalidateAll } from '$app/navigation';
import { say, sayUndoable } from '../shell/say.svelte';

/** How long the message offers to undo it; it can be reported again at any time. */
const OFFER_SECONDS = 10;

async function send<T>(site: number, method: 'POST' | 'DELETE', body: object): Promise<T | null> {
  const response = await fetch(`/sites/${site}/ignored`, { method, body: JSON.stringify(body) }).catch(() => null);
  if (response?.ok) {
    await invalidateAll();
    return (await response.json()) as T;
  }
  const problem = response && ((await response.json().catch(() => null)) as { message?: string } | null);
  say(problem?.message ?? 'That could not be done. Check that Edge Map is still running, and try again.', true);
  return null;
}

/** Reports an ignored finding again. */
export async function reportAgain(site: number, id: number, name: string): Promise<void> {
  if (await send(site, 'DELETE', { id })) say(`“${name}” is reported again.`);
}

/** Ignores a finding, everywhere or within a selection. @returns whether that was done */
export async function ignore(
  site: number,
  { id, name }: { id: string; name: string },
  within: string,
  reason: string,
): Promise<boolean> {
  const done = await send<{ id: number }>(site, 'POST', { finding: id, within, reason });
  if (!done) return false;
  sayUndoable(`“${name}” is ignored in this site.`, OFFER_SECONDS, () => void reportAgain(site, done.id, name));
  return true;
}
