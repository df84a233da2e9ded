/** What sitemaps are checked for, entry by entry. */
import type { Message } from '../messages';
import { isPlainAddress } from '../url';
import { readW3cDate } from './dates';

/** The faults that a sitemap can have. */
// Several words a line, to be read as a whole:
// prettier-ignore
export const sitemapFaults = [
  'not_well_formed', 'not_a_sitemap', 'wrong_namespace', 'not_utf8', 'too_many_urls', 'too_large', 'missing_loc',
  'relative_loc', 'loc_too_long', 'not_escaped', 'other_host', 'outside_folder', 'bad_lastmod', 'future_lastmod',
  'bad_priority', 'bad_changefreq', 'duplicate_loc', 'nested_index', 'unreachable',
] as const;
export type SitemapFaultId = (typeof sitemapFaults)[number];

export interface SitemapFault {
  /** 1-based; a fault inside an entry stands at the line of its element. */
  line: number;
  /** 1-based. */
  column: number;
  id: SitemapFaultId;
  message: Message;
}

export type SitemapKind = 'urlset' | 'index' | 'text' | 'feed' | 'unknown';

export interface SitemapCheck {
  kind: SitemapKind;
  entries: number;
  faults: SitemapFault[];
  /** What an index names. */
  children: string[];
}

export interface CheckOptions {
  /** The address of the sitemap, which decides about hosts and folders; null when it is not known, as for a file. */
  address: string | null;
  /** Whether an index names it: then it must be no index itself. */
  inIndex?: boolean;
  /** Milliseconds since 1970: what is later is the future. */
  now: number;
  /** Faults that are told; the rest is only counted. */
  most?: number;
  /** Receives each well-formed entry. */
  onEntry?: (loc: string, lastmod: string | null) => void;
}

export const MAX_URLS = 50_000;
export const MAX_BYTES = 50 * 1024 * 1024;
/** sitemaps.org: less than 2,048 characters. */
export const MAX_LOC = 2047;
export const NAMESPACE = 'http://www.sitemaps.org/schemas/sitemap/0.9';

/** Both are 1-based. */
export interface Place {
  line: number;
  column: number;
}
/** What an element contains, and where that begins. */
export interface Element extends Place {
  text: string;
}
/** An entry of a sitemap. */
export interface Entry {
  at: Element;
  loc: Element | null;
  lastmod: Element | null;
  priority: Element | null;
  changefreq: Element | null;
}
export const elementAt = ({ line, column }: Place, text = ''): Element => ({ line, column, text });

/** Files with many more entries than are allowed have worse faults than addresses that come twice. */
const MOST_COMPARED = 4 * MAX_URLS;

const changefreqs = new Set(['always', 'hourly', 'daily', 'weekly', 'monthly', 'yearly', 'never']);
/** Characters that a URL has only as escapes (RFC 3986 §2). */
const unescapedCharacter = /[^\u0021-\u007e]|[<>"{}|\\^`]/;
export const clip = (text: string) => (text.length > 200 ? `${text.slice(0, 199)}…` : text);

function urlOf(text: string): URL | null {
  try {
    return new URL(text);
  } catch {
    return null;
  }
}

/** Gathers faults, and counts entries. */
export function faultsOfEntries({ address, now, most = 1000, onEntry }: CheckOptions) {
  const faults: SitemapFault[] = [];
  const met = new Set<string>();
  const scope = address === null ? null : new URL(address);
  const folder = scope && scope.pathname.slice(0, scope.pathname.lastIndexOf('/') + 1);
  const place = scope && scope.origin + folder!;
  let entries = 0;
  /** Dates of one sitemap are often the same, one after the other. */
  let date = { text: '', time: null as number | null };
  const fault = (id: SitemapFaultId, at: Place, message: Message) => {
    if (faults.length < most) faults.push({ line: at.line, column: at.column, id, message });
  };
  const checkLoc = (loc: Element, text: string, kind: SitemapKind) => {
    if (text.length > MAX_LOC)
      return fault('loc_too_long', loc, { code: 'loc_long', characters: text.length, most: MAX_LOC });
    // Most addresses are in their normal form, or plainly in the folder: they need not be taken apart.
    const isPlain = isPlainAddress(text);
    if (!isPlain) {
      if (!/^https?:\/\//i.test(text)) return fault('relative_loc', loc, { code: 'loc_relative', text: clip(text) });
      if (unescapedCharacter.test(text)) fault('not_escaped', loc, { code: 'loc_characters', text: clip(text) });
      else if (/%(?![0-9a-f]{2})/i.test(text)) fault('not_escaped', loc, { code: 'loc_escape', text: clip(text) });
    }
    const isInFolder = place !== null && kind !== 'index' && text.startsWith(place);
    const isInside = isInFolder && (isPlain || !text.includes('/.'));
    const url = isInside || (isPlain && place === null) ? null : urlOf(text);
    if (!url && !isInside && !isPlain) return fault('relative_loc', loc, { code: 'loc_relative', text: clip(text) });
    const address = url ? url.href : text;
    if (kind === 'index' && address === scope?.href) fault('nested_index', loc, { code: 'index_itself' });
    const others = met.size;
    if (others < MOST_COMPARED) met.add(address);
    if (met.size === others && met.has(address))
      fault('duplicate_loc', loc, { code: 'loc_twice', address: clip(text) });
    if (!scope || !url) return;
    if (url.origin !== scope.origin)
      fault('other_host', loc, { code: 'loc_host', address: clip(text), origin: scope.origin });
    else if (folder && kind !== 'index' && !url.pathname.startsWith(folder))
      fault('outside_folder', loc, { code: 'loc_folder', address: clip(text), folder });
  };
  const checkLastmod = (lastmod: Element) => {
    const text = lastmod.text.trim();
    if (date.text !== text) date = { text, time: readW3cDate(text) };
    const { time } = date;
    if (time === null) fault('bad_lastmod', lastmod, { code: 'lastmod_bad', text: clip(text) });
    else if (time > now) fault('future_lastmod', lastmod, { code: 'lastmod_future', text });
  };
  return {
    faults,
    fault,
    count: () => entries,
    /** Checks an entry that has come to its end. */
    entry({ at, loc, lastmod, priority, changefreq }: Entry, kind: SitemapKind) {
      if (++entries === MAX_URLS + 1) fault('too_many_urls', at, { code: 'sitemap_many', most: MAX_URLS });
      const text = loc?.text.trim();
      if (!loc || !text) fault('missing_loc', loc ?? at, { code: 'loc_missing' });
      else checkLoc(loc, text, kind);
      if (lastmod && kind !== 'feed') checkLastmod(lastmod);
      if (priority && kind === 'urlset') {
        const text = priority.text.trim();
        if (!/^(0(\.\d+)?|1(\.0+)?|\.\d+)$/.test(text))
          fault('bad_priority', priority, { code: 'priority_bad', text: clip(text) });
      }
      if (changefreq && kind === 'urlset' && !changefreqs.has(changefreq.text.trim()))
        fault('bad_changefreq', changefreq, { code: 'changefreq_bad', text: clip(changefreq.text.trim()) });
      if (text) onEntry?.(text, lastmod?.text.trim() ?? null);
    },
  };
}

export type EntryFaults = ReturnType<typeof faultsOfEntries>;

/** What checks one form of sitemaps. */
export interface FormChecker {
  write: (piece: string) => boolean;
  end: () => void;
  kind: () => SitemapKind;
  children: string[];
}
/** UTF-16 units of an element that are kept. */
export const MAX_FIELD = 1 << 16;
