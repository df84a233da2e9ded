/** Checks sitemaps where they are: a file, or an address and, where it is an index, all that it names. */
import { createReadStream, existsSync } from 'node:fs';
import { basename, dirname, join, resolve } from 'node:path';
import { request } from 'undici';
import type { Message } from '$core/messages';
import { MAX_BYTES, sitemapChecker } from '$core/sitemap';
import type { SitemapCheck, SitemapFault } from '$core/sitemap';
import { identify } from '$core/url';
import { isRedirectStatus } from '$core/verdict';
import type { FileAnswer } from '$core/snapshot';
import type { Client } from './client';
import { classifyError } from './errors';
import { fileAnswer } from './fileAnswer';
import { unzipped } from './gunzip';
import { timeLimit } from './timeLimit';

export interface CheckedSitemap extends Omit<SitemapCheck, 'children'> {
  /** The address, or the path of a file. */
  address: string;
  /** Null for a file, and where no answer came. */
  answer: FileAnswer | null;
}

const MAX_FILES = 10_000;
const MAX_REDIRECTS = 5;
const WAIT_MS = 30_000;
const WHOLE_MS = 300_000;
/** Compressed bytes that are undone together: a check has no limit of time to keep. */
const SLICE = 1 << 16;
/** What is larger than this is read no further: it is too large by far. */
const MAX_READ = 4 * MAX_BYTES;

type Opened =
  | { ok: true; bytes: AsyncIterable<Buffer>; answer: FileAnswer | null }
  | { ok: false; reason: Message; answer: FileAnswer | null };

/** How a sitemap is asked for; at a terminal nothing is known of the site that it belongs to. */
export interface SitemapCheckOptions {
  client?: Pick<Client, 'agent' | 'headersFor'>;
  signal?: AbortSignal;
  /** Milliseconds for one file, however slowly it comes. */
  wholeMs?: number;
}

async function openAddress(address: string, { client, signal }: SitemapCheckOptions): Promise<Opened> {
  let from = address;
  try {
    for (let redirects = 0; ; redirects++) {
      const { statusCode, headers, body } = await request(from, {
        dispatcher: client?.agent,
        // Nothing on the way may answer for the server.
        headers: {
          'user-agent': 'EdgeMap/0.1',
          ...client?.headersFor(from),
          'accept-encoding': 'identity',
          'cache-control': 'no-cache',
        },
        headersTimeout: WAIT_MS,
        bodyTimeout: WAIT_MS,
        signal,
      });
      const answer = fileAnswer(from, redirects, { status: statusCode, headers });
      if (statusCode === 200) return { ok: true, bytes: body, answer };
      await body.dump().catch(() => {});
      const next = isRedirectStatus(statusCode) ? identify(String(headers.location ?? ''), from) : null;
      if (!next) return { ok: false, reason: { code: 'status', status: statusCode, tries: 1 }, answer };
      if (redirects === MAX_REDIRECTS)
        return { ok: false, reason: { code: 'too_many_redirects', most: MAX_REDIRECTS }, answer };
      from = next.address;
    }
  } catch (error) {
    return { ok: false, reason: { code: 'error', error: classifyError(error), tries: 1 }, answer: null };
  }
}

async function openFile(path: string): Promise<Opened> {
  const stream = createReadStream(path);
  try {
    await new Promise<void>((ready, reject) => {
      stream.once('readable', () => ready());
      stream.once('end', () => ready());
      stream.once('error', reject);
    });
    return { ok: true, bytes: stream as AsyncIterable<Buffer>, answer: null };
  } catch (error) {
    return { ok: false, reason: { code: 'file_missing', detail: (error as Error).message }, answer: null };
  }
}

/** The encoding that a file begins with, by its byte order mark or where its zero bytes are. */
function wideEncoding(head: Buffer): 'utf-16le' | 'utf-16be' | null {
  if ((head[0] === 0xff && head[1] === 0xfe) || (head[0] === 0x3c && head[1] === 0)) return 'utf-16le';
  return (head[0] === 0xfe && head[1] === 0xff) || (head[0] === 0 && head[1] === 0x3c) ? 'utf-16be' : null;
}

function lineBreaks(bytes: Buffer): number {
  let count = 0;
  for (let at = bytes.indexOf(10); at >= 0; at = bytes.indexOf(10, at + 1)) count++;
  return count;
}

/** Reads bytes as text, piece by piece, and tells the first line whose bytes are not UTF-8. */
function decoder(notUtf8: (line: number) => void) {
  let strict: TextDecoder | null = new TextDecoder('utf-8', { fatal: true });
  let lenient: TextDecoder | null = null;
  let line = 1;
  const faultyLine = (piece: Buffer): number => {
    for (let from = 0, at = line; ; at++) {
      const end = piece.indexOf(10, from) + 1 || piece.length;
      try {
        new TextDecoder('utf-8', { fatal: true }).decode(piece.subarray(from, end), { stream: end === piece.length });
      } catch {
        return at;
      }
      if (end === piece.length) return at;
      from = end;
    }
  };
  return (piece: Buffer | null): string => {
    if (piece === null) return lenient?.decode() ?? '';
    const wide = strict && line === 1 && !lenient ? wideEncoding(piece) : null;
    if (wide) {
      notUtf8(1);
      strict = null;
      lenient = new TextDecoder(wide);
    }
    if (strict)
      try {
        const text = strict.decode(piece, { stream: true });
        line += lineBreaks(piece);
        return text;
      } catch {
        notUtf8(faultyLine(piece));
        strict = null;
        lenient = new TextDecoder();
      }
    return lenient!.decode(piece, { stream: true });
  };
}

interface Place {
  /** What is shown. */
  name: string;
  /** The address of the sitemap; null for a file whose address is not known. */
  address: string | null;
  /** The path of a file; null for what is fetched. */
  path: string | null;
  inIndex: boolean;
}

const unreachable = (reason: Message): SitemapFault => ({ line: 1, column: 1, id: 'unreachable', message: reason });

async function checkOne(place: Place, { client, signal, wholeMs = WHOLE_MS }: SitemapCheckOptions) {
  const whole = timeLimit(wholeMs, signal);
  try {
    return await checkWithin(place, { client, signal: whole.signal });
  } finally {
    whole.clear();
  }
}

async function checkWithin({ name, address, path, inIndex }: Place, options: SitemapCheckOptions) {
  const opened = path === null ? await openAddress(address!, options) : await openFile(path);
  const { answer } = opened;
  const failed = (reason: Message) => ({
    checked: { address: name, kind: 'unknown' as const, entries: 0, faults: [unreachable(reason)], answer },
    children: [] as string[],
  });
  if (!opened.ok) return failed(opened.reason);
  const checker = sitemapChecker({ address, inIndex, now: Date.now() });
  const decode = decoder(checker.notUtf8);
  let size = 0;
  try {
    for await (const piece of unzipped(opened.bytes, SLICE)) {
      size += piece.length;
      if (!checker.write(decode(piece)) || size > MAX_READ) break;
    }
    checker.write(decode(null));
  } catch (error) {
    return failed({ code: 'error', error: classifyError(error), tries: 1 });
  }
  checker.size(size);
  const { children, ...checked } = checker.end();
  return { checked: { address: name, ...checked, answer }, children };
}

/** Checks the sitemap at an address, and none that it names. */
export const checkSitemap = async (
  address: string,
  inIndex: boolean,
  options: SitemapCheckOptions,
): Promise<CheckedSitemap> => (await checkOne({ name: address, address, path: null, inIndex }, options)).checked;

/**
 * A file beside a local index that has the name of a sitemap that the index lists: as it was written, before it is
 * published.
 */
function fileBeside(index: string, child: string): string | null {
  const path = join(dirname(index), basename(new URL(child).pathname));
  return existsSync(path) && resolve(path) !== resolve(index) ? path : null;
}

/**
 * Checks a sitemap, and what it names when it is an index, each once.
 * @param source an http or https address, or the path of a file
 */
export async function* checkSitemaps(
  source: string,
  options: SitemapCheckOptions = {},
): AsyncGenerator<CheckedSitemap> {
  const isAddress = /^https?:\/\//i.test(source);
  const first = isAddress ? (identify(source)?.address ?? source) : source;
  const places: Place[] = [
    { name: first, address: isAddress ? first : null, path: isAddress ? null : source, inIndex: false },
  ];
  const met = new Set([first]);
  for (const place of places) {
    const { checked, children } = await checkOne(place, options);
    yield checked;
    // What an index names that is an index itself is a fault, and is not followed.
    if (place.inIndex) continue;
    for (const child of children) {
      const address = identify(child)?.address;
      if (!address || met.has(address) || places.length >= MAX_FILES) continue;
      met.add(address);
      const path = place.path === null ? null : fileBeside(place.path, address);
      places.push({ name: path ?? address, address, path, inIndex: true });
    }
  }
}
