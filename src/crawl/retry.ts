import { setTimeout as sleep } from 'node:timers/promises';
import type { FetchError } from '$core/facts';
import { addressParts } from '$core/url';
import type { Client } from './client';
import { fetchAddress, headerOf } from './fetch';
import type { Answer, Fetched, FetchOptions } from './fetch';
import type { HostLimiter } from './hostLimiter';

const transientErrors = new Set<FetchError>(['timeout', 'reset', 'refused', 'network']);
/** Whether a failure may pass when the request is repeated. */
export const isTransient = (error: FetchError) => transientErrors.has(error);
const transientStatus = new Set([429, 500, 502, 503, 504]);
/** The first repetition comes after so long, each further one after twice the time. */
const FIRST_DELAY_MS = 250;
/** A host that asks for a longer silence is not waited for. */
const MAX_HOLD_MS = 600_000;
/** How long a host is left alone that asks for it, but not for how long, or for too long. */
const DEFAULT_HOLD_MS = 2000;
/** Being asked to wait is no failure: such requests are repeated at least so often. */
const MIN_HELD_TRIES = 5;

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

/** What decides whether a request is repeated. */
type Outcome = { ok: true; answer: Pick<Answer, 'status' | 'headers'> } | { ok: false; error: FetchError };

export interface RetryPolicy {
  limiter: HostLimiter;
  /** Repetitions at most. */
  retries: number;
  signal: AbortSignal;
}

/**
 * Makes a request at the crawl rate of its host, and repeats it after a failure that may pass: a broken connection, a
 * server error, or an answer that asks the crawler to wait.
 * @param once makes one request
 * @returns the outcome of the last one, with the number of requests made
 */
export async function withRetries<T extends Outcome>(
  host: string,
  once: () => Promise<T>,
  { limiter, retries, signal }: RetryPolicy,
): Promise<T & { tries: number }> {
  for (let tries = 1; ; tries++) {
    await limiter.wait(host, signal);
    const outcome = await once();
    if (signal.aborted) return { ...outcome, tries };
    if (!outcome.ok) {
      if (!isTransient(outcome.error) || tries > retries) return { ...outcome, tries };
    } else {
      const { status, headers } = outcome.answer;
      if (!transientStatus.has(status)) {
        limiter.answered(host);
        return { ...outcome, tries };
      }
      const asked = status === 429 || status === 503 ? retryAfter(headerOf(headers, 'retry-after'), Date.now()) : null;
      const hold = asked ?? (status === 429 ? DEFAULT_HOLD_MS * 2 ** (tries - 1) : null);
      if (hold !== null) {
        // What comes so much later is not waited for; the host is asked more slowly all the same.
        const isTooLong = hold > MAX_HOLD_MS;
        await limiter.backOff(host, isTooLong ? DEFAULT_HOLD_MS : hold, { code: 'asked_to_wait', status });
        if (isTooLong || limiter.isLeft(host) || tries > Math.max(retries, MIN_HELD_TRIES))
          return { ...outcome, tries };
        continue;
      }
      if (tries > retries) return { ...outcome, tries };
    }
    await sleep(FIRST_DELAY_MS * 2 ** (tries - 1), undefined, { signal }).catch(() => {});
  }
}

export type FetchedWithRetries = Fetched & {
  /** Requests made. */
  tries: number;
};
export type Fetch = (address: string, options: FetchOptions) => Promise<FetchedWithRetries>;

/** Makes the function with which a crawl fetches addresses, by {@link withRetries}. */
export const fetchWith =
  (client: Client, policy: RetryPolicy): Fetch =>
  (address, options) =>
    withRetries(addressParts(address).host, () => fetchAddress(address, client, policy.signal, options), policy);
