import { SaxesParser } from 'saxes';
import type { Message } from '../messages';

export interface SitemapEntry {
  /** As written, character references resolved, not yet checked. */
  loc: string;
  lastmod: string | null;
  /** 1-based line at which the entry's `<loc>` begins. */
  line: number;
}

export interface SitemapEvents {
  /** An entry of a urlset, a text file or a feed. */
  onUrl: (entry: SitemapEntry) => void;
  /** An entry of a sitemap index. */
  onSitemap: (entry: SitemapEntry) => void;
  /** The first thing that is wrong, after which nothing more is read. */
  onFault: (fault: Message, line: number) => void;
}

export interface SitemapReader {
  write: (text: string) => void;
  end: () => void;
}

const local = (name: string) => name.slice(name.indexOf(':') + 1).toLowerCase();

/** Reads an XML sitemap (urlset or index, sitemaps.org 0.9) piece by piece; nothing is held but the entry being read. */
function xmlReader({ onUrl, onSitemap, onFault }: SitemapEvents): SitemapReader {
  const parser = new SaxesParser({ xmlns: false, position: true });
  let failed = false;
  let index = false;
  let entry: SitemapEntry | null = null;
  let field: 'loc' | 'lastmod' | null = null;
  const path: string[] = [];
  const fault = (message: Message, line: number) => {
    if (!failed) onFault(message, line);
    failed = true;
  };
  parser.on('error', (error) =>
    fault({ code: 'not_well_formed', detail: error.message.replace(/^\d+:\d+: /, '') }, parser.line),
  );
  parser.on('opentag', ({ name }) => {
    const tag = local(name);
    path.push(tag);
    if (path.length === 1) {
      index = tag === 'sitemapindex';
      if (!index && tag !== 'urlset') fault({ code: 'not_a_sitemap', root: name }, parser.line);
    } else if (path.length === 2 && (tag === 'url' || tag === 'sitemap'))
      entry = { loc: '', lastmod: null, line: parser.line };
    else if (path.length === 3 && entry && (tag === 'loc' || tag === 'lastmod')) {
      field = tag;
      if (tag === 'loc') entry.line = parser.line;
    }
  });
  const text = (data: string) => {
    if (entry && field) entry[field] = (entry[field] ?? '') + data;
  };
  parser.on('text', text);
  parser.on('cdata', text);
  parser.on('closetag', () => {
    if (path.length === 3) field = null;
    if (path.length === 2 && entry && !failed) {
      const done = { ...entry, loc: entry.loc.trim(), lastmod: entry.lastmod?.trim() || null };
      if (done.loc) (index ? onSitemap : onUrl)(done);
      entry = null;
    }
    path.pop();
  });
  return {
    write: (piece) => {
      if (!failed) parser.write(piece);
    },
    end: () => {
      if (!failed) parser.close();
    },
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
    if (/^https?:\/\//i.test(loc)) onUrl({ loc, lastmod: null, line });
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
    },
    end: () => take(rest),
  };
}

/**
 * Makes a reader for a sitemap of unknown form: XML when the first character that is not white space is `<`, else text.
 * @param events called in document order
 */
export function sitemapReader(events: SitemapEvents): SitemapReader {
  let reader: SitemapReader | null = null;
  let held = '';
  const choose = (): SitemapReader => (held.trimStart().startsWith('<') ? xmlReader(events) : textReader(events));
  const start = () => {
    reader = choose();
    reader.write(held.replace(/^\uFEFF/, ''));
    held = '';
    return reader;
  };
  return {
    write: (piece) => {
      if (reader) return reader.write(piece);
      held += held ? piece : piece.replace(/^\uFEFF/, '');
      if (held.trim()) start();
    },
    end: () => {
      if (!reader && !held.trim()) return events.onFault({ code: 'empty_file' }, 1);
      (reader ?? start()).end();
    },
  };
}
