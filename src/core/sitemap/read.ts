import { SaxesParser } from 'saxes';
import type { Message } from '../messages';
import { MAX_ADDRESS_LENGTH } from '../url';

/** An edition in another language, as a sitemap names it. */
export interface Alternate {
  language: string;
  address: string;
}

export interface SitemapEntry {
  /** As written, character references resolved, not yet checked. */
  loc: string;
  lastmod: string | null;
  /** The editions that it names by `xhtml:link`, as written; absent when it names none. */
  alternates?: Alternate[];
  /** 1-based line at which the entry's `<loc>` begins. */
  line: number;
}

export interface SitemapEvents {
  /** An entry of a urlset, a text file or a feed. */
  onUrl: (entry: SitemapEntry) => void;
  /** An entry of a sitemap index. */
  onSitemap: (entry: SitemapEntry) => void;
  /** The file is a feed (RSS or Atom), which lists only what is new. */
  onFeed?: () => void;
  /** The first thing that is wrong, after which nothing more is read. */
  onFault: (fault: Message, line: number) => void;
}

export interface SitemapReader {
  /** @returns false when nothing more is read, because of a fault */
  write: (text: string) => boolean;
  end: () => void;
}

/** Elements within one another; a sitemap with its extensions needs five. */
const MAX_DEPTH = 20;
/** Text is read in pieces of this many characters, whatever pieces it comes in: faults are then told alike. */
const PIECE = 1 << 16;
/** One character more than an address may have shows that it was longer. */
const MAX_FIELD = MAX_ADDRESS_LENGTH + 1;
/** Editions of one entry; there are fewer languages. */
const MAX_ALTERNATES = 400;
const clipField = (text: string) => text.trim().slice(0, MAX_FIELD);

const local = (name: string) => name.slice(name.indexOf(':') + 1).toLowerCase();

/** The forms of XML: what an entry is called, how deep it stands, and which of its elements hold its address. */
const forms: Record<string, { entries: readonly string[]; depth: number; address: string; attribute?: string }> = {
  urlset: { entries: ['url'], depth: 2, address: 'loc' },
  sitemapindex: { entries: ['sitemap'], depth: 2, address: 'loc' },
  /** RSS 2.0 and RSS 1.0. Dates of feeds are of another form than lastmod, and say when a text was published. */
  rss: { entries: ['item'], depth: 3, address: 'link' },
  rdf: { entries: ['item'], depth: 2, address: 'link' },
  /** Atom (RFC 4287): the address is an attribute of its link to the page itself. */
  feed: { entries: ['entry'], depth: 2, address: 'link', attribute: 'href' },
};

/** Reads `<xhtml:link rel="alternate" hreflang="…" href="…">` of an entry. */
function takeAlternate(entry: SitemapEntry, { rel, hreflang, href }: Record<string, string>): void {
  const isFull = entry.alternates?.length === MAX_ALTERNATES;
  if (rel !== 'alternate' || !hreflang || !href || isFull) return;
  (entry.alternates ??= []).push({ language: hreflang.trim().toLowerCase().slice(0, 40), address: clipField(href) });
}

/** Reads an XML sitemap (sitemaps.org 0.9) or feed piece by piece; nothing is held but the entry being read. */
function xmlReader({ onUrl, onSitemap, onFeed, onFault }: SitemapEvents): SitemapReader {
  const parser = new SaxesParser({ xmlns: false, position: true });
  let failed = false;
  let form = forms.urlset;
  let entry: SitemapEntry | null = null;
  let field: 'loc' | 'lastmod' | null = null;
  const path: string[] = [];
  // The parser would go on after a fault, and find the next one at every character.
  const fault = (message: Message, line: number): never => {
    failed = true;
    onFault(message, line);
    throw new Error('Nothing more is read.');
  };
  parser.on('error', (error) =>
    fault({ code: 'not_well_formed', detail: error.message.replace(/^\d+:\d+: /, '') }, parser.line),
  );
  parser.on('opentag', ({ name, attributes }) => {
    if (path.length === MAX_DEPTH) fault({ code: 'nested_too_deep', most: MAX_DEPTH }, parser.line);
    const tag = local(name);
    path.push(tag);
    if (path.length === 1) {
      if (!Object.hasOwn(forms, tag)) fault({ code: 'not_a_sitemap', root: name }, parser.line);
      form = forms[tag];
      if (form !== forms.urlset && form !== forms.sitemapindex) onFeed?.();
    } else if (path.length === form.depth && form.entries.includes(tag))
      entry = { loc: '', lastmod: null, line: parser.line };
    else if (path.length === form.depth + 1 && entry && tag === form.address) {
      entry.line = parser.line;
      if (!form.attribute) field = 'loc';
      else if ((attributes.rel ?? 'alternate') === 'alternate') entry.loc = String(attributes[form.attribute] ?? '');
    } else if (path.length === form.depth + 1 && entry && tag === 'lastmod') field = 'lastmod';
    else if (path.length === form.depth + 1 && entry && tag === 'link') takeAlternate(entry, attributes);
  });
  const text = (data: string) => {
    if (entry && field) entry[field] = (entry[field] ?? '') + data;
  };
  parser.on('text', text);
  parser.on('cdata', text);
  parser.on('closetag', () => {
    if (path.length === form.depth + 1) field = null;
    if (path.length === form.depth && entry) {
      const done = { ...entry, loc: clipField(entry.loc), lastmod: clipField(entry.lastmod ?? '') || null };
      if (done.loc) (form === forms.sitemapindex ? onSitemap : onUrl)(done);
      entry = null;
    }
    path.pop();
  });
  const untilFault = (read: () => unknown) => {
    try {
      if (!failed) read();
    } catch {
      // Half a character at the end of a file makes the parser itself fail.
      if (!failed) onFault({ code: 'not_well_formed', detail: 'it ends within a character.' }, parser.line);
      failed = true;
    }
    return !failed;
  };
  return {
    write: (piece) => untilFault(() => parser.write(piece)),
    end: () => void untilFault(() => parser.close()),
  };
}

/** Reads a sitemap in text form: one address a line. */
function textReader({ onUrl, onFault }: SitemapEvents): SitemapReader {
  let rest = '';
  let line = 0;
  let failed = false;
  const take = (raw: string) => {
    line++;
    const loc = raw.trim();
    if (!loc || failed) return;
    if (loc.length <= MAX_FIELD && /^https?:\/\//i.test(loc)) onUrl({ loc, lastmod: null, line });
    else {
      failed = true;
      onFault({ code: 'not_a_list' }, line);
    }
  };
  return {
    write: (piece) => {
      const lines = (rest + piece).split(/\r\n|\n|\r(?!$)/);
      rest = lines.pop() ?? '';
      lines.forEach(take);
      // A line that does not end is not an address, and would be looked through again and again.
      if (rest.length > PIECE) take(rest);
      return !failed;
    },
    end: () => {
      if (!failed) take(rest);
    },
  };
}

/**
 * Makes a reader for a sitemap of unknown form: XML when the first character that is not white space is `<`, else text.
 * What it tells depends on the text alone, not on the pieces in which it comes.
 * @param events called in document order
 */
export function sitemapReader(events: SitemapEvents): SitemapReader {
  let reader: SitemapReader | null = null;
  let held = '';
  let isFirst = true;
  let failed = false;
  const fault = (message: Message, line: number) => {
    if (!failed) events.onFault(message, line);
    failed = true;
  };
  const guarded = { ...events, onFault: fault };
  const take = (piece: string) => {
    if (failed) return;
    const text = isFirst ? piece.replace(/^\uFEFF/, '') : piece;
    isFirst = false;
    if (!reader && !text.trim()) return fault({ code: 'empty_file' }, 1);
    reader ??= text.trimStart().startsWith('<') ? xmlReader(guarded) : textReader(guarded);
    reader.write(text);
  };
  return {
    write: (text) => {
      held += text;
      let at = 0;
      for (; held.length - at > PIECE && !failed; at += PIECE) take(held.slice(at, at + PIECE));
      if (at > 0) held = held.slice(at);
      return !failed;
    },
    end: () => {
      take(held);
      if (!failed) reader?.end();
    },
  };
}
