/** The sitemaps of a crawl: where each was found, how reading it ended, and what to try where it could not be read. */
import type { Message } from '../messages';
import { parseRobots } from '../robots';
import type { SitemapFile, Snapshot } from '../snapshot';

/** How a sitemap was found. */
export type SitemapOrigin = 'robots' | 'given' | 'usual' | 'index';

/** What to try next, as a code that a screen has a text for. */
export type SitemapAdvice =
  'missing' | 'refused' | 'failing' | 'unanswered' | 'html' | 'other' | 'xml' | 'empty' | 'large' | 'outside' | 'many';

export interface SitemapRow extends SitemapFile {
  found: SitemapOrigin;
  /** The line of robots.txt that names it. */
  foundLine: number | null;
  advice: SitemapAdvice | null;
}

const usual = /^\/(sitemap|sitemap_index)\.xml$/;
const MAX_ENTRIES = 50_000;

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
    default:
      return 'other';
  }
}

function adviceOn({ fault, skipped, entries }: SitemapFile): SitemapAdvice | null {
  if (fault) return adviceOnFault(fault);
  if (entries > MAX_ENTRIES) return 'many';
  return skipped > 0 ? 'outside' : null;
}

/**
 * The sitemaps that a crawl has read, those that are at fault first.
 * @param given addresses that the settings name
 */
export function sitemapRows({ files }: Pick<Snapshot, 'files'>, given: readonly string[]): SitemapRow[] {
  const named = new Map<string, number>();
  for (const { body } of files.robots)
    for (const { address, line } of parseRobots(body).sitemaps) named.set(address, line);
  const foundOf = (address: string): SitemapOrigin => {
    if (named.has(address)) return 'robots';
    if (given.includes(address)) return 'given';
    return usual.test(new URL(address).pathname) && named.size === 0 ? 'usual' : 'index';
  };
  return files.sitemaps
    .map((file) => ({
      ...file,
      found: foundOf(file.address),
      foundLine: named.get(file.address) ?? null,
      advice: adviceOn(file),
    }))
    .sort((a, b) => Number(b.fault !== null) - Number(a.fault !== null));
}
