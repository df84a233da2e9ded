/** Asks for what only a worker may find out: how an address of the site answers now. */
import type { LiveCheck, LiveCheckKind } from '$core/liveChecks';
import { answerOf } from '../shell/send';
import { texts } from './texts';

const POLL_MS = 400;

/**
 * Has an address checked, and waits for what is found.
 * @param signal ends the waiting; the check goes on
 * @param more what else the check needs to know
 * @returns null when it could not be asked for, which has been said, or the waiting was ended
 */
export async function checkLive<K extends LiveCheckKind>(
  site: number,
  kind: K,
  address: string,
  signal: AbortSignal,
  more: object = {},
): Promise<LiveCheck<K> | null> {
  const place = `/sites/${site}/checks`;
  const body = JSON.stringify({ kind, address, ...more });
  if (!(await answerOf(fetch(place, { method: 'POST', body }), texts.noAnswer))) return null;
  const query = new URLSearchParams({ kind, address });
  while (!signal.aborted) {
    const check = await answerOf<LiveCheck<K>>(fetch(`${place}?${query.toString()}`), texts.noAnswer);
    if (!check || check.state === 'done' || check.state === 'failed') return check;
    await new Promise((resolve) => setTimeout(resolve, POLL_MS));
  }
  return null;
}
