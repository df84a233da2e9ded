import pLimit from 'p-limit';
import { request } from 'undici';
import type { SitemapEntry } from '$core/sitemap';
import { addressParts, identify } from '$core/url';
import type { Identified } from '$core/url';
import type { FetchedSitemap } from '$core/snapshot';
import { isRedirectStatus } from '$core/verdict';
import type { QueuedSitemap } from '$server/index';
import { MAX_SITEMAPS } from '$server/crawls/sitemapQueue';
import type { Client } from './client';
import { classifyError } from './errors';
import { headerOf } from './fetch';
import { fileAnswer } from './fileAnswer';
import { unzipped } from './gunzip';
import { SITEMAPS_AT_ONCE } from './parserPool';
import type { ParserPool } from './parserPool';
import { isTransient, withRetries } from './retry';
import type { RetryPolicy } from './retry';
import { timeLimit } from './timeLimit';

const MAX_NESTING = 3;
const MAX_REDIRECTS = 5;
const MAX_BYTES = 100 << 20;
const WHOLE_MS = 300_000;
const BATCH = 1000;
/** How many are taken together from those that wait. */
const TAKEN = 100;

/** How a crawl fetches sitemaps, and what becomes of them. */
export interface SitemapOptions {
  client: Client;
  policy: RetryPolicy;
  openParser: ParserPool['openSitemap'];
  /** Gives addresses their identity, with the parameter rules of the site. */
  identify: (href: string) => Identified | null;
  inside: (address: string) => boolean;
  /** Receives entries whose `loc` is an inside address in normal form. */
  onEntries: (sitemap: string, entries: SitemapEntry[]) => Promise<unknown>;
  onRead: (outcome: FetchedSitemap) => Promise<unknown>;
  /** Where sitemaps wait to be read. */
  queue: SitemapQueue;
}

export interface SitemapQueue {
  /** Adds those that are new. @returns how many were left out, because no more are taken */
  add: (addresses: readonly string[], from: Omit<QueuedSitemap, 'address'>) => Promise<number>;
  /** Those to read next; they wait until they are given to `onRead`. */
  next: (count: number) => Promise<QueuedSitemap[]>;
}

/** Fetches a sitemap; the body of an answer that holds none is let go. */
async function fetchOnce(address: string, client: Client, signal: AbortSignal) {
  try {
    const { statusCode, headers, body } = await request(address, {
      dispatcher: client.agent,
      // Sitemaps are zipped as files; a coding of the connection would come on top.
      headers: { ...client.headersFor(address), accept: '*/*', 'accept-encoding': 'gzip' },
      signal,
    });
    if (statusCode !== 200) await body.dump().catch(() => {});
    return { ok: true as const, answer: { status: statusCode, headers, body } };
  } catch (error) {
    return { ok: false as const, error: classifyError(error) };
  }
}

/**
 * Reads one sitemap as a stream.
 * @returns how it went, whether there is none, and whether it broke off in a way that may pass; null when the signal
 *   has ended the reading
 */
async function readSitemap(
  { address, index, nesting }: QueuedSitemap,
  { client, policy, openParser, ...sink }: SitemapOptions,
) {
  const { signal } = policy;
  const outcome: FetchedSitemap = {
    address,
    index,
    entries: 0,
    skipped: 0,
    isFeed: false,
    fault: null,
    faultLine: null,
    answer: null,
  };
  let children: string[] = [];
  let batch: SitemapEntry[] = [];
  /** Whether too many other sitemaps are known for those that it names. */
  let leftOut = false;
  /** Whether entries could not be stored, which is no fault of the sitemap. */
  let unstored = false;
  const flush = async () => {
    const [entries, named] = [batch, children];
    [batch, children] = [[], []];
    unstored = true;
    if (entries.length) await sink.onEntries(address, entries);
    if (named.length && nesting + 1 < MAX_NESTING)
      leftOut = (await sink.queue.add(named, { index: address, nesting: nesting + 1 })) > 0 || leftOut;
    unstored = false;
  };
  const takeUrl = (entry: SitemapEntry) => {
    const loc = sink.identify(entry.loc)?.address;
    outcome.entries++;
    const alternates = entry.alternates?.flatMap(({ language, address }) => {
      const named = sink.identify(address)?.address;
      return named ? [{ language, address: named }] : [];
    });
    if (loc && sink.inside(loc)) batch.push({ ...entry, loc, alternates });
    else outcome.skipped++;
  };
  const takeChild = ({ loc }: SitemapEntry) => {
    const child = identify(loc, address)?.address;
    outcome.entries++;
    if (child) children.push(child);
    else outcome.skipped++;
  };
  const parser = openParser();
  /** @returns whether more may be read */
  const take = async (piece: string | null): Promise<boolean> => {
    const read = await parser.read(piece);
    if (!read.ok) outcome.fault = { code: 'file_unreadable', reason: read.reason };
    else {
      read.parsed.urls.forEach(takeUrl);
      read.parsed.sitemaps.forEach(takeChild);
      outcome.isFeed = read.parsed.isFeed;
      outcome.fault = read.parsed.fault?.message ?? null;
      outcome.faultLine = read.parsed.fault?.line ?? null;
    }
    if (batch.length + children.length >= BATCH) await flush();
    return outcome.fault === null;
  };
  const whole = timeLimit(WHOLE_MS, signal);
  try {
    let from = address;
    for (let redirects = 0; ; redirects++) {
      const fetched = await withRetries(addressParts(from).host, () => fetchOnce(from, client, whole.signal), policy);
      if (!fetched.ok) {
        outcome.fault = { code: 'error', error: fetched.error, tries: fetched.tries };
        return { outcome, missing: false };
      }
      const { status, headers, body } = fetched.answer;
      outcome.answer = fileAnswer(from, redirects, fetched.answer);
      const next = isRedirectStatus(status) ? identify(headerOf(headers, 'location') ?? '', from) : null;
      if (next && redirects < MAX_REDIRECTS) {
        from = next.address;
        continue;
      }
      if (status !== 200) {
        outcome.fault = { code: 'status', status, tries: fetched.tries };
        return { outcome, missing: status === 404 || status === 410 };
      }
      const decoder = new TextDecoder();
      let size = 0;
      for await (const piece of unzipped(body)) {
        size += piece.length;
        if (size > MAX_BYTES) {
          outcome.fault = { code: 'too_large', megabytes: MAX_BYTES >> 20 };
          break;
        }
        if (!(await take(decoder.decode(piece, { stream: true })))) break;
      }
      if (!outcome.fault) await take(decoder.decode());
      if (!outcome.fault) await take(null);
      await flush();
      if (leftOut) outcome.fault ??= { code: 'too_many_sitemaps', most: MAX_SITEMAPS };
      return { outcome, missing: false };
    }
  } catch (error) {
    if (unstored) throw error;
    if (signal.aborted) return null;
    const failure = classifyError(error);
    // What came before the connection broke counts.
    if (!outcome.fault) await take(null);
    await flush();
    outcome.fault = { code: 'error', error: failure, tries: 1 };
    outcome.faultLine = null;
    return { outcome, missing: false, torn: isTransient(failure) };
  } finally {
    whole.clear();
    parser.close();
  }
}

/** Where sitemaps usually stand; none there is no fault. */
const usualPlaces = ['/sitemap.xml', '/sitemap_index.xml'];

/**
 * Reads sitemaps and, where they are indexes, the sitemaps they name, each once, and those that were left unread
 * before.
 * @param tryAt origins at which the usual places are tried, when no addresses are given
 */
export async function readSitemaps(addresses: readonly string[], tryAt: readonly string[], options: SitemapOptions) {
  const { retries, signal } = options.policy;
  const readOne = async (named: QueuedSitemap, isGuess: boolean): Promise<void> => {
    if (signal.aborted) return;
    let read = await readSitemap(named, options);
    // What was read before it broke off comes again; it is stored once.
    for (let left = retries; read?.torn && left > 0 && !signal.aborted; left--)
      read = await readSitemap(named, options);
    if (!read || signal.aborted) return;
    const { outcome, missing } = read;
    // Many servers answer anything with a page of their own.
    if (isGuess && (missing || (outcome.fault && outcome.entries === 0))) return;
    await options.onRead(outcome);
  };
  const start = { index: null, nesting: 0 };
  if (addresses.length) await options.queue.add(addresses, start);
  else
    for (const origin of tryAt)
      for (const place of usualPlaces) await readOne({ address: origin + place, ...start }, true);
  const inTurn = pLimit(SITEMAPS_AT_ONCE);
  for (
    let some = await options.queue.next(TAKEN);
    some.length && !signal.aborted;
    some = await options.queue.next(TAKEN)
  )
    await Promise.all(some.map((named) => inTurn(() => readOne(named, false))));
}
