import { promisify } from 'node:util';
import { brotliDecompress, constants, gunzip, inflate, inflateRaw } from 'node:zlib';
import { Agent, buildConnector, request } from 'undici';
import type { Dispatcher } from 'undici';
import { USER_AGENT } from '$core/settings';
import type { AddressOverride, CrawlSettings } from '$core/settings';
import type { FetchError } from '$core/verdict';
import { classifyError } from './errors';

const CONNECT_MS = 10_000;
const ANSWER_MS = 30_000;
const WHOLE_MS = 120_000;
/** Larger bodies are cut here, before and after decompression. */
export const MAX_BODY_BYTES = 20 << 20;

/** Numbers are kept in 32 bits. */
const MAX_NUMBER = 2 ** 31 - 1;

/** Opens connections for a crawl: overrides are looked up first, as a hosts file would be, the name stays in the request. */
export function openAgent(settings: Pick<CrawlSettings, 'overrides' | 'acceptCertificates' | 'connections'>): Agent {
  const connector = buildConnector({ rejectUnauthorized: !settings.acceptCertificates, timeout: CONNECT_MS });
  return new Agent({
    connections: settings.connections,
    headersTimeout: ANSWER_MS,
    bodyTimeout: ANSWER_MS,
    connect: (options, callback) => {
      const to = overrideFor(settings.overrides, options);
      const servername = options.servername ?? options.hostname;
      connector(to ? { ...options, hostname: to.toHost, port: String(to.toPort), servername } : options, callback);
    },
  });
}

function overrideFor(overrides: readonly AddressOverride[], to: buildConnector.Options) {
  const port = Number(to.port) || (to.protocol === 'https:' ? 443 : 80);
  const ofHost = overrides.filter(({ host }) => host === to.hostname.toLowerCase());
  return ofHost.find((override) => override.port === port) ?? ofHost.find((override) => override.port === undefined);
}

export interface Answer {
  status: number;
  headers: Record<string, string | string[] | undefined>;
  /** Body as the content coding gives it, at most {@link MAX_BODY_BYTES}; empty when it was not wanted. */
  body: Uint8Array;
  /** Bytes of the body as sent. */
  bytes: number;
  responseMs: number;
}

export type Fetched = { ok: true; answer: Answer } | { ok: false; error: FetchError };

type Decoder = (body: Buffer) => Promise<Buffer>;
// A body that ends early is read as far as it goes, and never grows beyond the limit.
const limits = { maxOutputLength: MAX_BODY_BYTES };
const partial = { ...limits, finishFlush: constants.Z_SYNC_FLUSH };
const ungzip: Decoder = (body) => promisify<Buffer, object, Buffer>(gunzip)(body, partial);
const decoders: Record<string, Decoder> = {
  gzip: ungzip,
  'x-gzip': ungzip,
  // “deflate” is sent both with and without the zlib wrapper; its first nibble tells (RFC 1950 §2.2).
  deflate: (body) => promisify<Buffer, object, Buffer>((body[0] & 15) === 8 ? inflate : inflateRaw)(body, partial),
  br: (body) =>
    promisify<Buffer, object, Buffer>(brotliDecompress)(body, {
      ...limits,
      finishFlush: constants.BROTLI_OPERATION_FLUSH,
    }),
};

/** A header's value; several fields of one name are joined as RFC 9110 §5.3 allows. */
export const headerOf = (headers: Answer['headers'], name: string): string | null => {
  const value = headers[name];
  return value === undefined ? null : Array.isArray(value) ? value.join(', ') : value;
};

async function collect(body: Dispatcher.ResponseData['body']): Promise<Buffer> {
  const pieces: Buffer[] = [];
  let size = 0;
  for await (const piece of body as AsyncIterable<Buffer>) {
    pieces.push(size + piece.length > MAX_BODY_BYTES ? piece.subarray(0, MAX_BODY_BYTES - size) : piece);
    size += pieces[pieces.length - 1].length;
    if (size >= MAX_BODY_BYTES) {
      body.destroy();
      break;
    }
  }
  return pieces.length === 1 ? pieces[0] : Buffer.concat(pieces, size);
}

/**
 * Asks for one address, following nothing.
 * @param wanted whether the body is to be read, judged by status and headers
 */
export async function fetchAddress(
  address: string,
  agent: Agent,
  signal: AbortSignal,
  wanted: (status: number, headers: Answer['headers']) => boolean,
): Promise<Fetched> {
  const began = performance.now();
  try {
    const response = await request(address, {
      dispatcher: agent,
      headers: {
        'user-agent': USER_AGENT,
        accept: 'text/html,application/xhtml+xml,*/*;q=0.8',
        'accept-encoding': 'gzip, deflate, br',
      },
      signal: AbortSignal.any([signal, AbortSignal.timeout(WHOLE_MS)]),
    });
    const responseMs = Math.round(performance.now() - began);
    const { statusCode: status, headers } = response;
    if (!wanted(status, headers)) {
      // Small rests are read so that the connection can be used again.
      await response.body.dump({ limit: 65_536 }).catch(() => {});
      const bytes = Math.min(Number(headerOf(headers, 'content-length')) || 0, MAX_NUMBER);
      return { ok: true, answer: { status, headers, body: new Uint8Array(), bytes, responseMs } };
    }
    const raw = await collect(response.body);
    const coding = headerOf(headers, 'content-encoding')?.trim().toLowerCase();
    const decoder = coding ? decoders[coding] : undefined;
    const body = decoder && raw.length ? await decoder(raw) : raw;
    return { ok: true, answer: { status, headers, body, bytes: raw.length, responseMs } };
  } catch (error) {
    return { ok: false, error: classifyError(error) };
  }
}
