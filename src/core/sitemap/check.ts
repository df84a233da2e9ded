/**
 * Checks a sitemap against the sitemaps.org protocol 0.9 (https://www.sitemaps.org/protocol.html), in one pass: nothing is
 * held but the element that is being read, and the addresses of the entries so far, as far as the protocol allows them.
 */
import { SaxesParser } from 'saxes';
import type { Message } from '../messages';
import { isPlainAddress } from '../url';
import { readW3cDate } from './dates';
import { ENTRY_END, plainEntries } from './entries';
import type { Element, Entry, Place } from './entries';

/** The faults that a sitemap can have. */
export const sitemapFaults = [
  'not_well_formed',
  'not_a_sitemap',
  'wrong_namespace',
  'not_utf8',
  'too_many_urls',
  'too_large',
  'missing_loc',
  'relative_loc',
  'loc_too_long',
  'not_escaped',
  'other_host',
  'outside_folder',
  'bad_lastmod',
  'future_lastmod',
  'bad_priority',
  'bad_changefreq',
  'duplicate_loc',
  'nested_index',
  'unreachable',
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

/** Files with many more entries than are allowed have worse faults than addresses that come twice. */
const MOST_COMPARED = 4 * MAX_URLS;

const MAX_DEPTH = 20;
const MAX_CHILDREN = 50_000;
const changefreqs = new Set(['always', 'hourly', 'daily', 'weekly', 'monthly', 'yearly', 'never']);
/** Characters that a URL has only as escapes (RFC 3986 §2). */
const unescapedCharacter = /[^\u0021-\u007e]|[<>"{}|\\^`]/;
const roots: Record<string, SitemapKind> = {
  urlset: 'urlset',
  sitemapindex: 'index',
  rss: 'feed',
  RDF: 'feed',
  feed: 'feed',
};
const feedEntries = new Set(['item', 'entry']);

export interface SitemapChecker {
  /** Takes a piece of the decoded file. @returns false when nothing more is read */
  write: (text: string) => boolean;
  /** Notes that the bytes are not UTF-8, at a line. */
  notUtf8: (line: number) => void;
  /** Notes how large the file is when it is not compressed. */
  size: (bytes: number) => void;
  end: () => SitemapCheck;
}

type FieldName = 'loc' | 'lastmod' | 'priority' | 'changefreq';
const elementAt = ({ line, column }: Place, text = ''): Element => ({ line, column, text });
const fieldNames = new Set<string>(['loc', 'lastmod', 'priority', 'changefreq'] satisfies FieldName[]);

function urlOf(text: string): URL | null {
  try {
    return new URL(text);
  } catch {
    return null;
  }
}

/** Gathers faults, and counts entries. */
function findings({ address, now, most = 1000, onEntry }: CheckOptions) {
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

const clip = (text: string) => (text.length > 200 ? `${text.slice(0, 199)}…` : text);
const MAX_FIELD = 1 << 16;

/** What checks one form of sitemaps. */
interface FormChecker {
  write: (piece: string) => boolean;
  end: () => void;
  kind: () => SitemapKind;
  children: string[];
}

/** Checks the XML forms. */
function xmlChecker(options: CheckOptions, found: ReturnType<typeof findings>): FormChecker {
  const parser = new SaxesParser({ xmlns: true, position: true });
  let kind: SitemapKind = 'unknown';
  let isOver = false;
  let entry: Entry | null = null as Entry | null;
  let field: Element | null = null;
  let tagAt = { line: 1, column: 1 };
  const path: string[] = [];
  const children: string[] = [];
  const here = () => ({ line: parser.line, column: parser.column + 1 });
  const stop = (): never => {
    isOver = true;
    throw new Error('Nothing more is read.');
  };
  parser.on('error', (error) => {
    const message = error.message.replace(/^\d+:\d+: /, '');
    found.fault('not_well_formed', here(), { code: 'not_well_formed', detail: message });
    stop();
  });
  let rootUri = '';
  let isPrefixed = false;
  // What stands behind the name has been read: a line break there has begun the next line.
  parser.on('opentagstart', ({ name }) => {
    const isBroken = parser.column === 0;
    tagAt = isBroken
      ? { line: parser.line - 1, column: 1 }
      : { line: parser.line, column: Math.max(1, parser.column - name.length - 1) };
  });
  parser.on('opentag', (tag) => {
    const { name, local, uri, attributes } = tag;
    if (path.length === MAX_DEPTH) {
      found.fault('not_well_formed', tagAt, { code: 'nested_too_deep', most: MAX_DEPTH });
      stop();
    }
    path.push(local);
    if (path.length === 1) {
      kind = Object.hasOwn(roots, local) ? roots[local] : 'unknown';
      rootUri = uri;
      isPrefixed = name !== local;
      if (kind === 'unknown') {
        found.fault('not_a_sitemap', tagAt, { code: 'not_a_sitemap', root: name });
        stop();
      }
      if (kind !== 'feed' && uri !== NAMESPACE)
        found.fault('wrong_namespace', tagAt, { code: 'sitemap_namespace', found: clip(uri) });
      if (kind === 'index' && options.inIndex) found.fault('nested_index', tagAt, { code: 'index_in_index' });
      return;
    }
    const isEntry =
      kind === 'urlset'
        ? path.length === 2 && local === 'url'
        : kind === 'index'
          ? path.length === 2 && local === 'sitemap'
          : feedEntries.has(local) && path.length <= 3;
    if (isEntry && !entry) entry = { at: elementAt(tagAt), loc: null, lastmod: null, priority: null, changefreq: null };
    else if (entry && kind === 'feed' && local === 'link' && !entry.loc) {
      const href = attributes.href?.value;
      const rel = attributes.rel?.value ?? 'alternate';
      if (href === undefined) field = entry.loc = elementAt(tagAt);
      else if (rel === 'alternate') entry.loc = elementAt(tagAt, href);
    } else if (entry && kind !== 'feed' && path.length === 3 && fieldNames.has(local) && uri === rootUri)
      field = entry[local as FieldName] = elementAt(tagAt);
  });
  const text = (data: string) => {
    if (field && field.text.length < MAX_FIELD) field.text += data;
  };
  parser.on('text', text);
  parser.on('cdata', text);
  /** Characters given to the parser, and at how many of them, and where, the last entry ended. */
  let given = 0;
  let ended = -1;
  let endPlace: Place = tagAt;
  parser.on('closetag', () => {
    if (field && path.length === 3 + Number(kind === 'feed' && path[0] === 'rss')) field = null;
    const isEntryEnd = entry && (kind === 'feed' ? feedEntries.has(path.at(-1)!) : path.length === 2);
    if (isEntryEnd && entry) {
      found.entry(entry, kind);
      const loc = kind === 'index' && entry.loc?.text.trim();
      if (loc && children.length < MAX_CHILDREN) children.push(loc);
      entry = null;
      field = null;
      ended = parser.position;
      endPlace = here();
    }
    path.pop();
  });
  const give = (text: string) => {
    parser.write(text);
    given += text.length;
  };
  const read = (piece: string): void => {
    for (let from = 0; from < piece.length;) {
      // Behind an entry the next ones are told without the parser, in a fraction of the time.
      if (ended === given && kind === 'urlset' && !isPrefixed) {
        const run = plainEntries(piece, from, endPlace, (one) => found.entry(one, kind));
        from = run.end;
        // It learns how much room they took, so that it knows where it is.
        give(run.blank);
      }
      const close = piece.indexOf(ENTRY_END, from);
      const to = close < 0 ? piece.length : close + ENTRY_END.length;
      give(piece.slice(from, to));
      from = to;
    }
  };
  const guarded = (read: () => unknown) => {
    try {
      if (!isOver) read();
    } catch (error) {
      // Half a character at the end of a file makes the parser itself fail.
      if (!isOver)
        found.fault('not_well_formed', here(), { code: 'not_well_formed', detail: (error as Error).message });
      isOver = true;
    }
    return !isOver;
  };
  return {
    write: (piece: string) => guarded(() => read(piece)),
    end: () => void guarded(() => parser.close()),
    kind: () => kind,
    children,
  };
}

/** Checks the text form: one address a line. */
function textChecker(found: ReturnType<typeof findings>): FormChecker {
  let rest = '';
  let line = 0;
  let isOver = false;
  const take = (raw: string) => {
    line++;
    const text = raw.trim();
    if (!text || isOver) return;
    const at = { line, column: 1 + raw.length - raw.trimStart().length, text };
    // A text whose first line is no address is something else.
    if (found.count() === 0 && !/^https?:\/\//i.test(text)) {
      isOver = true;
      return found.fault('not_a_sitemap', at, { code: 'not_a_list' });
    }
    found.entry({ at, loc: at, lastmod: null, priority: null, changefreq: null }, 'text');
  };
  return {
    write: (piece: string) => {
      const lines = (rest + piece).split(/\r\n|\n|\r(?!$)/);
      rest = lines.pop()!.slice(0, MAX_FIELD);
      lines.forEach(take);
      return !isOver;
    },
    end: () => take(rest),
    kind: () => (isOver ? 'unknown' : 'text'),
    children: [],
  };
}

/** Many servers answer with a page of theirs; its doctype is often no XML. */
const looksLikeHtml = /^\s*<(!doctype\s+html|html[\s>])/i;
const nothingChecker: FormChecker = { write: () => false, end: () => {}, kind: () => 'unknown', children: [] };
/** Characters by which the form of a file shows. */
const HEAD = 32;
const lineOf = (text: string) => text.slice(0, text.length - text.trimStart().length).split('\n').length;

/** An encoding that the XML declaration names, other than UTF-8. */
const otherEncoding = (text: string) =>
  /^\s*<\?xml[^>]*\bencoding\s*=\s*["']([^"']+)["']/i.exec(text)?.[1].replace(/^utf-?8$/i, '') || null;

/** Makes the checker of one sitemap, of any form. */
export function sitemapChecker(options: CheckOptions): SitemapChecker {
  const found = findings(options);
  let checker: FormChecker | null = null;
  let held = '';
  let isFirst = true;
  let isOtherEncoding = false;
  let isHtml = false;
  const top = { line: 1, column: 1 };
  const notUtf8 = (line: number, encoding = '') => {
    if (!isOtherEncoding) found.fault('not_utf8', { line, column: 1 }, { code: 'sitemap_encoding', encoding });
    isOtherEncoding = true;
  };
  const write = (piece: string, isEnd = false): boolean => {
    held += piece;
    if (!checker) {
      if (isFirst) held = held.replace(/^\uFEFF/, '');
      isFirst = held === '';
      if (held.trim().length < (isEnd ? 1 : HEAD)) return true;
      const encoding = otherEncoding(held.slice(0, 500));
      if (encoding) notUtf8(1, encoding);
      if (looksLikeHtml.test(held)) {
        found.fault('not_a_sitemap', { line: lineOf(held), column: 1 }, { code: 'not_a_sitemap', root: 'html' });
        isHtml = true;
      }
      checker = isHtml
        ? nothingChecker
        : held.trimStart().startsWith('<')
          ? xmlChecker(options, found)
          : textChecker(found);
    }
    const text = held;
    held = '';
    return checker.write(text);
  };
  return {
    write: (piece) => write(piece),
    notUtf8,
    size: (bytes) => {
      if (bytes > MAX_BYTES) found.fault('too_large', top, { code: 'sitemap_size', megabytes: MAX_BYTES >> 20 });
    },
    end: () => {
      write('', true);
      checker?.end();
      if (!checker) found.fault('not_a_sitemap', top, { code: 'empty_file' });
      const faults = found.faults.sort((a, b) => a.line - b.line || a.column - b.column);
      return { kind: checker?.kind() ?? 'unknown', entries: found.count(), faults, children: checker?.children ?? [] };
    },
  };
}
