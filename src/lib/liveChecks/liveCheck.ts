/** Asks for what only a worker may find out: how an address of the site answers now. */
import type { LiveCheck, LiveCheckKind } from '$core/liveChecks';
import { say } from '../shell/say.svelte';
import { texts } from './texts';

const POLL_MS = 400;

async function answerOf<T>(asking: Promise<Response>): Promise<T | null> {
  const response = await asking.catch(() => null);
  if (response?.ok) return (await response.json()) as T;
  const problem = response && ((await response.json().catch(() => null)) as { message?: string } | null);
  say(problem?.message ?? texts.noAnswer, true);
  return null;
}

/**
 * Has an address checked, and waits for what is found.
 * @param signal ends the waiting; the check goes on
 * @returns null when it could not be asked for, which has been said, or the waiting was ended
 */
export async function checkLive<K extends LiveCheckKind>(
  site: number,
  kind: K,
  address: string,
  signal: AbortSignal,
): Promise<LiveCheck<K> | null> {
  const place = `/sites/${site}/checks`;
  const body = JSON.stringify({ kind, address });
  if (!(await answerOf(fetch(place, { method: 'POST', body })))) return null;
  const query = new URLSearchParams({ kind, address });
  while (!signal.aborted) {
    const check = await answerOf<LiveCheck<K>>(fetch(`${place}?${query.toString()}`));
    if (!check || check.state === 'done' || check.state === 'failed') return check;
    await new Promise((resolve) => setTimeout(resolve, POLL_MS));
  }
  return null;
}
