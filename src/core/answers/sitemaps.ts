/** The sitemaps of a crawl: where each was found, how reading it ended, and what to try where it could not be read. */
import type { Message } from '../messages';
import type { RobotsRule } from '../facts';
import { parseRobots, robotsMatcher } from '../robots';
import type { FetchedSitemap } from '../snapshot';
import { originOf } from '../url';
import type { View } from '../view';

/** How a sitemap was found. */
export type SitemapOrigin = 'robots' | 'given' | 'usual' | 'index';

/** What to try next, as a code that a screen has a text for. */
export type SitemapAdvice =
  | 'missing'
  | 'refused'
  | 'failing'
  | 'unanswered'
  | 'html'
  | 'other'
  | 'xml'
  | 'empty'
  | 'large'
  | 'unread'
  | 'split'
  | 'blocked'
  | 'redirect'
  | 'type'
  | 'stale'
  | 'many'
  | 'outside';

export interface SitemapRow extends FetchedSitemap {
  found: SitemapOrigin;
  /** The line of robots.txt that names it. */
  foundLine: number | null;
  /** How many indexes stand above it. */
  level: number;
  /** The rule of robots.txt that keeps the crawler from it; crawls read it all the same. */
  closedBy: RobotsRule | null;
  advice: SitemapAdvice | null;
}

const usual = /^\/(sitemap|sitemap_index)\.xml$/;
const MAX_ENTRIES = 50_000;
/** An answer that a cache has held for longer may be that of an earlier sitemap. */
const STALE_SECONDS = 86_400;
/**
 * Media types that a sitemap may have; many servers say nothing better of compressed files than that they are bytes.
 */
const fitting = /^(|text\/(xml|plain)|application\/(xml|gzip|x-gzip|octet-stream|rss\+xml|atom\+xml|rdf\+xml))$/;

function adviceOnFault(fault: Message): SitemapAdvice {
  switch (fault.code) {
    case 'status':
      if (fault.status === 404 || fault.status === 410) return 'missing';
      if (fault.status >= 500) return 'failing';
      return fault.status === 401 || fault.status === 403 || fault.status === 429 ? 'refused' : 'other';
    case 'error':
      return 'unanswered';
    case 'not_a_sitemap':
      return /^html$/i.test(fault.root) ? 'html' : 'other';
    case 'not_well_formed':
    case 'nested_too_deep':
      return 'xml';
    case 'empty_file':
      return 'empty';
    case 'too_large':
      return 'large';
    case 'sitemap_not_read':
      return 'unread';
    case 'too_many_sitemaps':
      return 'split';
    default:
      return 'other';
  }
}

function adviceOn(
  { fault, skipped, entries, answer }: FetchedSitemap,
  closedBy: RobotsRule | null,
): SitemapAdvice | null {
  if (fault) return adviceOnFault(fault);
  if (closedBy) return 'blocked';
  if (answer && answer.redirects > 0) return 'redirect';
  if (answer && !fitting.test(answer.type)) return 'type';
  if ((answer?.age ?? 0) > STALE_SECONDS) return 'stale';
  if (entries > MAX_ENTRIES) return 'many';
  return skipped > 0 ? 'outside' : null;
}

/** What the settings of a crawl say of its sitemaps. */
export interface SitemapSettings {
  /** Addresses that they name. */
  given: readonly string[];
  /** The product token for which robots.txt is read. */
  token: string;
}

/** The sitemaps that a crawl has read, each index with what it names below it, those that are at fault first. */
export function sitemapRows({ files }: Pick<View, 'files'>, { given, token }: SitemapSettings): SitemapRow[] {
  const robots = files.robots.map(({ origin, body }) => ({ origin, file: parseRobots(body) }));
  const named = new Map(
    robots.flatMap(({ file }) => file.sitemaps.map(({ address, line }) => [address, line] as const)),
  );
  const matchers = new Map(robots.map(({ origin, file }) => [origin, robotsMatcher(file, token)]));
  const foundOf = ({ address, index }: FetchedSitemap): SitemapOrigin => {
    if (index) return 'index';
    if (named.has(address)) return 'robots';
    if (given.includes(address)) return 'given';
    return usual.test(new URL(address).pathname) && named.size === 0 ? 'usual' : 'index';
  };
  const rowOf = (file: FetchedSitemap, level: number): SitemapRow => {
    const { allowed, rule } = matchers.get(originOf(file.address))?.(file.address) ?? { allowed: true };
    const closedBy = allowed || !rule ? null : rule;
    const found = foundOf(file);
    const foundLine = found === 'robots' ? named.get(file.address)! : null;
    return { ...file, found, foundLine, level, closedBy, advice: adviceOn(file, closedBy) };
  };
  const addresses = new Set(files.sitemaps.map(({ address }) => address));
  const parentOf = ({ index }: FetchedSitemap) => (index && addresses.has(index) ? index : null);
  const children = new Map<string | null, FetchedSitemap[]>();
  for (const file of files.sitemaps) {
    const alike = children.get(parentOf(file)) ?? [];
    children.set(parentOf(file), alike);
    alike.push(file);
  }
  const below = (index: string | null, level: number): SitemapRow[] =>
    (children.get(index) ?? [])
      .sort((a, b) => Number(b.fault !== null) - Number(a.fault !== null))
      .flatMap((file) => [rowOf(file, level), ...below(file.address, level + 1)]);
  return below(null, 0);
}
