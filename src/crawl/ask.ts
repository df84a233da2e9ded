import { setTimeout as sleep } from 'node:timers/promises';
import { addressParts } from '$core/url';
import type { FetchError } from '$core/verdict';
import type { Client } from './client';
import { fetchAddress, headerOf } from './fetch';
import type { Answer, Asking, Fetched } from './fetch';
import type { Pace } from './pace';

/** Failures that may pass when the request is repeated. */
const passing = new Set<FetchError>(['timeout', 'reset', 'refused', 'network']);
export const mayPass = (error: FetchError) => passing.has(error);
const passingStatus = new Set([429, 500, 502, 503, 504]);
/** The first repetition comes after so long, each further one after twice the time. */
const AGAIN_MS = 250;
/** A host that asks for a longer silence is not waited for. */
const MAX_HOLD_MS = 600_000;
/** How long a host is left alone that says “too many requests” and not for how long. */
const UNTOLD_HOLD_MS = 2000;
/** Being asked to wait is no failure: such requests are repeated at least so often. */
const HELD_TRIES = 5;

/**
 * Reads Retry-After: seconds, or a date (RFC 9110 §10.2.3).
 * @returns milliseconds from now; null when it says nothing that can be read
 */
export function retryAfter(value: string | null, now: number): number | null {
  if (value === null) return null;
  if (/^\s*\d+\s*$/.test(value)) return Number(value) * 1000;
  const date = Date.parse(value);
  return Number.isNaN(date) ? null : Math.max(0, date - now);
}

/** What came of one request, as far as it decides whether to ask again. */
type Outcome = { ok: true; answer: Pick<Answer, 'status' | 'headers'> } | { ok: false; error: FetchError };

/** How often and how soon is asked again. */
export interface Insisting {
  pace: Pace;
  /** Repetitions at most. */
  retries: number;
  signal: AbortSignal;
}

/**
 * Asks a host at its pace, and again when that may help: connections that broke, servers that failed for the moment or
 * asked to be left alone for a while.
 * @param once makes one request
 * @returns what came of the last one, with the number of requests made
 */
export async function insist<T extends Outcome>(
  host: string,
  once: () => Promise<T>,
  { pace, retries, signal }: Insisting,
): Promise<T & { tries: number }> {
  for (let tries = 1; ; tries++) {
    await pace.turn(host);
    const outcome = await once();
    if (signal.aborted) return { ...outcome, tries };
    if (!outcome.ok) {
      if (!mayPass(outcome.error) || tries > retries) return { ...outcome, tries };
    } else {
      const { status, headers } = outcome.answer;
      if (!passingStatus.has(status)) return { ...outcome, tries };
      const told = status === 429 || status === 503 ? retryAfter(headerOf(headers, 'retry-after'), Date.now()) : null;
      const wait = told ?? (status === 429 ? UNTOLD_HOLD_MS * 2 ** (tries - 1) : null);
      if (wait !== null) {
        if (wait > MAX_HOLD_MS) return { ...outcome, tries };
        await pace.hold(host, wait, `It answered ${status} and is left alone for a while.`);
        if (tries > Math.max(retries, HELD_TRIES)) return { ...outcome, tries };
        continue;
      }
      if (tries > retries) return { ...outcome, tries };
    }
    await sleep(AGAIN_MS * 2 ** (tries - 1), undefined, { signal }).catch(() => {});
  }
}

export type Asked = Fetched & {
  /** Requests made. */
  tries: number;
};
export type Ask = (address: string, asking: Asking) => Promise<Asked>;

/** Makes the function that asks for an address as {@link insist} does. */
export const asker =
  (client: Client, insisting: Insisting): Ask =>
  (address, asking) =>
    insist(addressParts(address).host, () => fetchAddress(address, client, insisting.signal, asking), insisting);
