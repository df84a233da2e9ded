/** Checks the XML forms of sitemaps: URL sets, indexes, and feeds. */
import { SaxesParser } from 'saxes';
import type { SaxesTagNS } from 'saxes';
import { clip, elementAt, MAX_FIELD, NAMESPACE } from './entryFaults';
import type { CheckOptions, Element, Entry, EntryFaults, FormChecker, SitemapKind } from './entryFaults';

const MAX_DEPTH = 20;
const MAX_CHILDREN = 50_000;

const roots: Record<string, SitemapKind> = {
  urlset: 'urlset',
  sitemapindex: 'index',
  rss: 'feed',
  RDF: 'feed',
  feed: 'feed',
};
const feedEntries = new Set(['item', 'entry']);

type FieldName = 'loc' | 'lastmod' | 'priority' | 'changefreq';
const fieldNames = new Set<string>(['loc', 'lastmod', 'priority', 'changefreq'] satisfies FieldName[]);

/** Whether an element begins an entry. @param depth of the element; the root has 1 */
function isEntry(kind: SitemapKind, name: string, depth: number): boolean {
  if (kind === 'feed') return feedEntries.has(name) && depth <= 3;
  return depth === 2 && name === (kind === 'urlset' ? 'url' : 'sitemap');
}

/** Stands for an ampersand that begins no reference, for which the parser would end: a character for private use. */
const BARE = '\uf8ff';
const bareAmpersand = /&(?!(?:#\d+|#x[\da-f]+|[a-z_][\w.-]*);)/gi;
/** The end of a piece that may be the beginning of a reference. */
const openReference = /&[\w#.-]{0,60}$/;

export function xmlChecker(options: CheckOptions, found: EntryFaults): FormChecker {
  const parser = new SaxesParser({ xmlns: true, position: true });
  let kind: SitemapKind = 'unknown';
  let rootUri = '';
  let isOver = false;
  let entry: Entry | null = null;
  let field: Element | null = null;
  let tagAt = { line: 1, column: 1 };
  let held = '';
  const path: string[] = [];
  const children: string[] = [];
  const here = () => ({ line: parser.line, column: parser.column + 1 });
  const stop = (): never => {
    isOver = true;
    throw new Error('Nothing more is read.');
  };

  function openRoot({ name, local, uri }: SaxesTagNS) {
    kind = Object.hasOwn(roots, local) ? roots[local] : 'unknown';
    rootUri = uri;
    if (kind === 'unknown') {
      found.fault('not_a_sitemap', tagAt, { code: 'not_a_sitemap', root: name });
      stop();
    }
    if (kind !== 'feed' && uri !== NAMESPACE)
      found.fault('wrong_namespace', tagAt, { code: 'sitemap_namespace', found: clip(uri) });
    if (kind === 'index' && options.inIndex) found.fault('nested_index', tagAt, { code: 'index_in_index' });
  }

  /** Within an entry, an element that the protocol or the feed gives a meaning. */
  function openField(own: Entry, { local, uri, attributes }: SaxesTagNS) {
    if (kind !== 'feed') {
      if (path.length === 3 && fieldNames.has(local) && uri === rootUri)
        field = own[local as FieldName] = elementAt(tagAt);
      return;
    }
    if (local !== 'link' || own.loc) return;
    const href = attributes.href?.value;
    if (href === undefined) field = own.loc = elementAt(tagAt);
    else if ((attributes.rel?.value ?? 'alternate') === 'alternate') own.loc = elementAt(tagAt, href);
  }

  function closeEntry(own: Entry) {
    found.entry(own, kind);
    const loc = kind === 'index' && own.loc?.text.trim();
    if (loc && children.length < MAX_CHILDREN) children.push(loc);
    entry = null;
    field = null;
  }

  function stopAtAmpersand(): never {
    found.fault('not_well_formed', here(), { code: 'loc_ampersand' });
    return stop();
  }

  parser.on('error', (error) => {
    const message = error.message.replace(/^\d+:\d+: /, '');
    found.fault('not_well_formed', here(), { code: 'not_well_formed', detail: message });
    stop();
  });
  // What follows the name has been read: a line break there has begun the next line.
  parser.on('opentagstart', ({ name }) => {
    const isBroken = parser.column === 0;
    tagAt = isBroken
      ? { line: parser.line - 1, column: 1 }
      : { line: parser.line, column: Math.max(1, parser.column - name.length - 1) };
  });
  parser.on('opentag', (tag) => {
    if (path.length === MAX_DEPTH) {
      found.fault('not_well_formed', tagAt, { code: 'nested_too_deep', most: MAX_DEPTH });
      stop();
    }
    path.push(tag.local);
    if (Object.values(tag.attributes).some(({ value }) => value.includes(BARE))) stopAtAmpersand();
    if (path.length === 1) openRoot(tag);
    else if (entry) openField(entry, tag);
    else if (isEntry(kind, tag.local, path.length))
      entry = { at: elementAt(tagAt), loc: null, lastmod: null, priority: null, changefreq: null };
  });
  const text = (data: string) => {
    if (field && field.text.length < MAX_FIELD) field.text += data;
  };
  parser.on('text', (data) => {
    if (!data.includes(BARE)) return text(data);
    if (!field) stopAtAmpersand();
    found.fault('not_escaped', field!, { code: 'loc_ampersand' });
    text(data.replaceAll(BARE, '&'));
  });
  // An ampersand is one there.
  parser.on('cdata', (data) => text(data.replaceAll(BARE, '&')));
  parser.on('closetag', () => {
    if (field && path.length === 3 + Number(kind === 'feed' && path[0] === 'rss')) field = null;
    if (entry && (kind === 'feed' ? feedEntries.has(path.at(-1)!) : path.length === 2)) closeEntry(entry);
    path.pop();
  });
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
    write: (piece) =>
      guarded(() => {
        const whole = held + piece;
        held = openReference.exec(whole)?.[0] ?? '';
        parser.write(whole.slice(0, whole.length - held.length).replace(bareAmpersand, BARE));
      }),
    end: () =>
      void guarded(() => {
        parser.write(held.replace(bareAmpersand, BARE));
        parser.close();
      }),
    kind: () => kind,
    children,
  };
}
