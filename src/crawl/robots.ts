import { crawlDelayFor, describeRule, MAX_ROBOTS_BYTES, parseRobots, robotsMatcher } from '$core/robots';
import type { RobotsFile } from '$core/robots';
import { addressParts, identify, originOf } from '$core/url';
import { fetchErrorText, isRedirectStatus } from '$core/verdict';
import type { FetchError } from '$core/verdict';
import type { Ask } from './ask';
import { headerOf } from './fetch';

/** What the robots.txt of one origin says to us. */
export interface OriginRules {
  origin: string;
  /** The rule that closes an address, described with the line it stands on; null when the address is open. */
  closedBy: (address: string) => string | null;
  sitemaps: RobotsFile['sitemaps'];
  /** Seconds to leave between requests; null when nothing is said. */
  crawlDelay: number | null;
  /** For the record: how the file was answered, and what it held. */
  status: number | null;
  fault: string | null;
  error: FetchError | null;
  body: string;
}

const MAX_REDIRECTS = 5;

/**
 * Fetches and reads the robots.txt of an origin (RFC 9309 §2.3): 4xx opens everything, 5xx and no answer close it.
 * @param token the product token rules are read for
 */
export async function readRobots(origin: string, ask: Ask, token: string): Promise<OriginRules> {
  const closed = (reason: string, status: number | null, error: FetchError | null = null): OriginRules => ({
    origin,
    closedBy: () => `robots.txt could not be read, which closes the whole host: ${reason}`,
    sitemaps: [],
    crawlDelay: null,
    status,
    fault: reason,
    error,
    body: '',
  });
  let address = `${origin}/robots.txt`;
  for (let redirects = 0; ; redirects++) {
    const fetched = await ask(address, { wanted: (status) => status < 300 });
    if (!fetched.ok) return closed(fetchErrorText[fetched.error], null, fetched.error);
    const { status, headers, body } = fetched.answer;
    if (status >= 500) return closed(`The server answered ${status}.`, status);
    const location = headerOf(headers, 'location');
    const next = isRedirectStatus(status) && location ? identify(location, address) : null;
    if (next && redirects < MAX_REDIRECTS) {
      address = next.address;
      continue;
    }
    const text = status < 300 ? new TextDecoder().decode(body.subarray(0, MAX_ROBOTS_BYTES)) : '';
    const file = parseRobots(text);
    const matcher = robotsMatcher(file, token);
    return {
      origin,
      closedBy: (target) => {
        const { allowed, rule } = matcher(target);
        return allowed || !rule ? null : describeRule(rule);
      },
      sitemaps: file.sitemaps,
      crawlDelay: crawlDelayFor(file, token),
      status,
      fault: next ? `More than ${MAX_REDIRECTS} redirects.` : null,
      error: null,
      body: text,
    };
  }
}

export interface RobotsKeeping {
  ask: Ask;
  token: string;
  signal: AbortSignal;
  onRead: (rules: OriginRules, host: string) => Promise<unknown>;
}

/** Keeps the rules of every origin that a crawl meets; each is asked for once. */
export function robotsKeeper({ ask, token, signal, onRead }: RobotsKeeping) {
  const kept = new Map<string, Promise<OriginRules>>();
  return (address: string): Promise<OriginRules> => {
    const origin = originOf(address);
    let rules = kept.get(origin);
    if (!rules) {
      rules = readRobots(origin, ask, token).then(async (read) => {
        if (!signal.aborted) await onRead(read, addressParts(address).host);
        return read;
      });
      kept.set(origin, rules);
    }
    return rules;
  };
}
