/**
 * Checks a sitemap against the sitemaps.org protocol 0.9 (https://www.sitemaps.org/protocol.html), in one pass: nothing
 * is held but the element that is being read, and the addresses of the entries so far, as far as the protocol allows
 * them.
 */
import { xmlChecker } from './checkXml';
import { faultsOfEntries, MAX_BYTES, MAX_FIELD } from './entryFaults';
import type { CheckOptions, EntryFaults, FormChecker, SitemapCheck } from './entryFaults';

export interface SitemapChecker {
  /** Takes a piece of the decoded file. @returns false when nothing more is read */
  write: (text: string) => boolean;
  /** Notes that the bytes are not UTF-8, at a line. */
  notUtf8: (line: number) => void;
  /** Notes how large the file is when it is not compressed. */
  size: (bytes: number) => void;
  end: () => SitemapCheck;
}

/** Checks the text form: one address a line. */
function textChecker(found: EntryFaults): FormChecker {
  let rest = '';
  let line = 0;
  let isOver = false;
  const take = (raw: string) => {
    line++;
    const text = raw.trim();
    if (!text || isOver) return;
    const at = { line, column: 1 + raw.length - raw.trimStart().length, text };
    // A text whose first line is not an address is something else.
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
  const found = faultsOfEntries(options);
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
