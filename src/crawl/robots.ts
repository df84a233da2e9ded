import type { FetchError, RobotsRule } from '$core/facts';
import type { Message } from '$core/messages';
import { crawlDelayFor, MAX_ROBOTS_BYTES, robotsMatcher } from '$core/robots';
import type { RobotsFile } from '$core/robots';
import type { FileAnswer } from '$core/snapshot';
import { addressParts, identify, originOf } from '$core/url';
import { isRedirectStatus } from '$core/verdict';
import { headerOf } from './fetch';
import { fileAnswer } from './fileAnswer';
import type { ParserPool } from './parserPool';
import type { Fetch } from './retry';

/** What the robots.txt of one origin says to the crawler. */
export interface OriginRules {
  origin: string;
  /** The rule that closes an address; null when it is open. */
  closedBy: (address: string) => RobotsRule | null;
  sitemaps: RobotsFile['sitemaps'];
  /** Seconds to leave between requests; null when nothing is said. */
  crawlDelay: number | null;
  /** For the record: how the file was answered, and what it held. */
  status: number | null;
  fault: Message | null;
  error: FetchError | null;
  body: string;
  answer: FileAnswer | null;
}

const MAX_REDIRECTS = 5;
const unreadable: RobotsRule = { line: 0, directive: 'unreadable', path: '', group: '' };

/**
 * Fetches and reads the robots.txt of an origin (RFC 9309 §2.3): 4xx opens everything, 5xx and no answer close it.
 */
export async function fetchRobots(
  origin: string,
  { fetch, parse, token }: Pick<RobotsOptions, 'fetch' | 'parse' | 'token'>,
): Promise<OriginRules> {
  let answer: FileAnswer | null = null;
  const closed = (fault: Message, status: number | null, error: FetchError | null = null): OriginRules => ({
    origin,
    closedBy: () => unreadable,
    sitemaps: [],
    crawlDelay: null,
    status,
    fault,
    error,
    body: '',
    answer,
  });
  let address = `${origin}/robots.txt`;
  for (let redirects = 0; ; redirects++) {
    const fetched = await fetch(address, { wanted: (status) => status < 300 });
    const { tries } = fetched;
    if (!fetched.ok) return closed({ code: 'error', error: fetched.error, tries }, null, fetched.error);
    const { status, headers, body } = fetched.answer;
    answer = fileAnswer(address, redirects, fetched.answer);
    if (status >= 500) return closed({ code: 'status', status, tries }, status);
    const location = headerOf(headers, 'location');
    const next = isRedirectStatus(status) && location ? identify(location, address) : null;
    if (next && redirects < MAX_REDIRECTS) {
      address = next.address;
      continue;
    }
    const text = status < 300 ? new TextDecoder().decode(body.subarray(0, MAX_ROBOTS_BYTES)) : '';
    const outcome = await parse(text);
    if (!outcome.ok) return { ...closed({ code: 'file_unreadable', reason: outcome.reason }, status), body: text };
    const file = outcome.parsed;
    const matcher = robotsMatcher(file, token);
    return {
      origin,
      closedBy: (target) => {
        const { allowed, rule } = matcher(target);
        return allowed || !rule ? null : rule;
      },
      sitemaps: file.sitemaps,
      crawlDelay: crawlDelayFor(file, token),
      status,
      fault: next ? { code: 'too_many_redirects', most: MAX_REDIRECTS } : null,
      error: null,
      body: text,
      answer,
    };
  }
}

export interface RobotsOptions {
  fetch: Fetch;
  parse: ParserPool['parseRobots'];
  /** The product token rules are read for. */
  token: string;
  signal: AbortSignal;
  onRead: (rules: OriginRules, host: string) => Promise<unknown>;
}

/** Makes the cache of the rules of every origin that a crawl meets; each robots.txt is fetched once. */
export function robotsCache({ signal, onRead, ...options }: RobotsOptions) {
  const byOrigin = new Map<string, Promise<OriginRules>>();
  return (address: string): Promise<OriginRules> => {
    const origin = originOf(address);
    let rules = byOrigin.get(origin);
    if (!rules) {
      rules = fetchRobots(origin, options).then(async (read) => {
        if (!signal.aborted) await onRead(read, addressParts(address).host);
        return read;
      });
      byOrigin.set(origin, rules);
    }
    return rules;
  };
}
