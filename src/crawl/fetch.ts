import { request } from 'undici';
import type { FetchError } from '$core/facts';
import { decodeBody, takeIn } from './body';
import type { Client } from './client';
import { classifyError } from './errors';
import { timeLimit } from './timeLimit';

/** Numbers are kept in 32 bits. */
const MAX_NUMBER = 2 ** 31 - 1;
/** The rest of a body that is not wanted is read up to here, so that its connection can be used again. */
const MAX_DUMP = 65_536;

export interface Answer {
  status: number;
  headers: Record<string, string | string[] | undefined>;
  /** Body as the content coding gives it, at most as long as the client allows; empty when it was not wanted. */
  body: Uint8Array;
  /** Whether the body is longer than what was read of it. */
  truncated: boolean;
  /** Bytes of the body as sent. */
  bytes: number;
  responseMs: number;
}

export type Fetched = { ok: true; answer: Answer } | { ok: false; error: FetchError };

/** A header's value; several fields of one name are joined as RFC 9110 §5.3 allows. */
export const headerOf = (headers: Answer['headers'], name: string): string | null => {
  const value = headers[name];
  return value === undefined ? null : Array.isArray(value) ? value.join(', ') : value;
};

export interface FetchOptions {
  method?: 'GET' | 'HEAD';
  /** Whether the body is to be read, judged by status and headers. */
  wanted: (status: number, headers: Answer['headers']) => boolean;
}

/** Asks for one address once, following nothing. */
export async function fetchAddress(
  address: string,
  client: Client,
  signal: AbortSignal,
  { method = 'GET', wanted }: FetchOptions,
): Promise<Fetched> {
  const began = performance.now();
  const whole = timeLimit(client.timeouts.whole, signal);
  try {
    const response = await request(address, {
      method,
      dispatcher: client.agent,
      headers: client.headersFor(address),
      signal: whole.signal,
    });
    const responseMs = Math.round(performance.now() - began);
    const { statusCode: status, headers } = response;
    client.keepCookies(address, headers['set-cookie']);
    if (method === 'HEAD' || !wanted(status, headers)) {
      await response.body.dump({ limit: MAX_DUMP }).catch(() => {});
      const bytes = Math.min(Number(headerOf(headers, 'content-length')) || 0, MAX_NUMBER);
      return { ok: true, answer: { status, headers, body: new Uint8Array(), truncated: false, bytes, responseMs } };
    }
    // A body whose length is told can be no longer.
    const length = Number(headerOf(headers, 'content-length') ?? NaN);
    const raw =
      length <= client.maxBytes
        ? { bytes: Buffer.from(await response.body.arrayBuffer()), truncated: false }
        : await takeIn(response.body, client.maxBytes);
    const { bytes: body, truncated } = await decodeBody(raw, headerOf(headers, 'content-encoding'), client.maxBytes);
    return { ok: true, answer: { status, headers, body, truncated, bytes: raw.bytes.length, responseMs } };
  } catch (error) {
    return { ok: false, error: classifyError(error) };
  } finally {
    whole.clear();
  }
}
