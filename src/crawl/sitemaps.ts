import { request } from 'undici';
import type { SitemapEntry } from '$core/sitemap';
import { addressParts, identify } from '$core/url';
import type { Identified } from '$core/url';
import type { FetchedSitemap } from '$core/snapshot';
import { isRedirectStatus } from '$core/verdict';
import type { Client } from './client';
import { classifyError } from './errors';
import { headerOf } from './fetch';
import { fileAnswer } from './fileAnswer';
import { unzipped } from './gunzip';
import type { ParserPool } from './parserPool';
import { isTransient, withRetries } from './retry';
import { MAX_SITEMAPS } from './sitemapParser';
import type { RetryPolicy } from './retry';

const MAX_NESTING = 3;
const MAX_REDIRECTS = 5;
const MAX_BYTES = 100 << 20;
const WHOLE_MS = 300_000;
const BATCH = 1000;

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

/** A sitemap to read, and the index that names it. */
interface NamedSitemap {
  address: string;
  index: string | null;
}

/**
 * Reads one sitemap as a stream.
 * @returns how it went, the sitemaps it names when it is an index, and whether it broke off in a way that may pass
 */
async function readSitemap({ address, index }: NamedSitemap, { client, policy, openParser, ...sink }: SitemapOptions) {
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
  const children: string[] = [];
  let batch: SitemapEntry[] = [];
  /** Whether entries could not be stored, which is no fault of the sitemap. */
  let unstored = false;
  const flush = async () => {
    const full = batch;
    batch = [];
    if (full.length === 0) return;
    unstored = true;
    await sink.onEntries(address, full);
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
      outcome.entries += read.parsed.moreSitemaps;
      outcome.isFeed = read.parsed.isFeed;
      outcome.skipped += read.parsed.moreSitemaps;
      outcome.fault = read.parsed.fault?.message ?? null;
      outcome.faultLine = read.parsed.fault?.line ?? null;
    }
    if (batch.length >= BATCH) await flush();
    return outcome.fault === null;
  };
  const whole = new AbortController();
  const giveUp = () => whole.abort(signal.reason);
  const timer = setTimeout(() => whole.abort(new DOMException('No answer in time.', 'TimeoutError')), WHOLE_MS);
  signal.addEventListener('abort', giveUp);
  try {
    let from = address;
    for (let redirects = 0; ; redirects++) {
      const fetched = await withRetries(addressParts(from).host, () => fetchOnce(from, client, whole.signal), policy);
      if (!fetched.ok) {
        outcome.fault = { code: 'error', error: fetched.error, tries: fetched.tries };
        return { outcome, children, missing: false };
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
        return { outcome, children, missing: status === 404 || status === 410 };
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
      return { outcome, children, missing: false };
    }
  } catch (error) {
    if (unstored || signal.aborted) throw error;
    const failure = classifyError(error);
    // What came before the connection broke counts.
    if (!outcome.fault) await take(null);
    await flush();
    outcome.fault = { code: 'error', error: failure, tries: 1 };
    outcome.faultLine = null;
    return { outcome, children, missing: false, torn: isTransient(failure) };
  } finally {
    clearTimeout(timer);
    signal.removeEventListener('abort', giveUp);
    parser.close();
  }
}

/** Where sitemaps usually stand; none there is no fault. */
const usualPlaces = ['/sitemap.xml', '/sitemap_index.xml'];

/**
 * Reads sitemaps and, where they are indexes, the sitemaps they name, each once.
 * @param tryAt origins at which the usual places are tried, when no addresses are given
 */
export async function readSitemaps(addresses: readonly string[], tryAt: readonly string[], options: SitemapOptions) {
  const { retries, signal } = options.policy;
  const met = new Set<string>();
  const guesses = addresses.length ? [] : tryAt.flatMap((origin) => usualPlaces.map((place) => origin + place));
  let level: NamedSitemap[] = [...addresses, ...guesses].map((address) => ({ address, index: null }));
  for (let nesting = 0; nesting < MAX_NESTING && level.length; nesting++) {
    const next: NamedSitemap[] = [];
    for (const named of level) {
      const { address } = named;
      if (signal.aborted || met.has(address) || met.size >= MAX_SITEMAPS) continue;
      met.add(address);
      let read = await readSitemap(named, options);
      // What was read before it broke off comes again; it is stored once.
      for (let left = retries; read.torn && left > 0 && !signal.aborted; left--)
        read = await readSitemap(named, options);
      const { outcome, children, missing } = read;
      if (signal.aborted) return;
      // Many servers answer anything with a page of their own.
      if (guesses.includes(address) && (missing || (outcome.fault && outcome.entries === 0))) continue;
      await options.onRead(outcome);
      for (const child of children) next.push({ address: child, index: address });
    }
    level = next;
  }
}
