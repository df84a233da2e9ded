import { setTimeout as sleep } from 'node:timers/promises';
import { addressParts } from '$core/url';
import type { FetchError } from '$core/verdict';
import type { Client } from './client';
import { fetchAddress, headerOf } from './fetch';
import type { Asking, Fetched } from './fetch';
import type { Pace } from './pace';

/** Failures that may pass when the request is repeated. */
const passing = new Set<FetchError>(['timeout', 'reset', 'refused', 'network']);
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

export type Asked = Fetched & {
  /** Requests made. */
  tries: number;
};
export type Ask = (address: string, asking: Asking) => Promise<Asked>;

/**
 * Makes the function that asks for an address at the pace of its host, and again when that may help: connections that
 * broke, servers that failed for the moment or asked to be left alone for a while.
 * @param retries repetitions at most
 */
export function asker(client: Client, pace: Pace, retries: number, signal: AbortSignal): Ask {
  return async (address, asking) => {
    const { host } = addressParts(address);
    for (let tries = 1; ; tries++) {
      await pace.turn(host);
      const fetched = await fetchAddress(address, client, signal, asking);
      if (signal.aborted) return { ...fetched, tries };
      if (!fetched.ok) {
        if (!passing.has(fetched.error) || tries > retries) return { ...fetched, tries };
      } else {
        const { status, headers } = fetched.answer;
        if (!passingStatus.has(status)) return { ...fetched, tries };
        const told = status === 429 || status === 503 ? retryAfter(headerOf(headers, 'retry-after'), Date.now()) : null;
        const wait = told ?? (status === 429 ? UNTOLD_HOLD_MS * 2 ** (tries - 1) : null);
        if (wait !== null) {
          if (wait > MAX_HOLD_MS) return { ...fetched, tries };
          await pace.hold(host, wait, `It answered ${status} and is left alone for a while.`);
          if (tries > Math.max(retries, HELD_TRIES)) return { ...fetched, tries };
          continue;
        }
        if (tries > retries) return { ...fetched, tries };
      }
      await sleep(AGAIN_MS * 2 ** (tries - 1), undefined, { signal }).catch(() => {});
    }
  };
}
