/** Writes sitemaps (sitemaps.org 0.9), split where the protocol wants it, with an index where there are several. */
import { MAX_BYTES, MAX_LOC, MAX_URLS, NAMESPACE } from './entryFaults';

/** What a sitemap should list, as a selection: every page that may be indexed and that links lead to. */
export const LISTED = 'indexable and reached';

export interface SitemapPage {
  address: string;
  /** A W3C date that something shows; null when nothing does: it is never invented. */
  lastmod: string | null;
  /** Editions in other languages, the page itself among them. */
  alternates: readonly { language: string; address: string }[];
}

export interface SitemapDocument {
  /** `sitemap.xml`, or `sitemap-1.xml` and so on with `sitemap.xml` as their index. */
  name: string;
  text: string;
  entries: number;
}

const entities: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&apos;' };
const escaped = (text: string) => text.replace(/[&<>"']/g, (character) => entities[character]);

const HEAD = '<?xml version="1.0" encoding="UTF-8"?>\n';
const XHTML = 'http://www.w3.org/1999/xhtml';
const END = '</urlset>\n';

function entryText({ address, lastmod, alternates }: SitemapPage): string {
  const date = lastmod === null ? '' : `\n    <lastmod>${escaped(lastmod)}</lastmod>`;
  const links = alternates.map(
    (one) => `\n    <xhtml:link rel="alternate" hreflang="${escaped(one.language)}" href="${escaped(one.address)}"/>`,
  );
  return `  <url>\n    <loc>${escaped(address)}</loc>${date}${links.join('')}\n  </url>\n`;
}

/** Whether an address can be listed. */
export const isListable = (address: string): boolean => address.length <= MAX_LOC;

/**
 * Writes the sitemaps of some pages.
 * @param base the address of the folder that the files will be published in, with a slash at its end
 * @param ending what the names of the listed files end in besides `.xml`, such as `.gz`
 */
export function writeSitemaps(
  pages: Iterable<SitemapPage>,
  base: string,
  { ending = '', withAlternates = false }: { ending?: string; withAlternates?: boolean } = {},
): SitemapDocument[] {
  const begin = `${HEAD}<urlset xmlns="${NAMESPACE}"${withAlternates ? ` xmlns:xhtml="${XHTML}"` : ''}>\n`;
  const most = MAX_BYTES - begin.length - END.length;
  const bytes = new TextEncoder();
  const parts: { texts: string[]; size: number }[] = [];
  for (const page of pages) {
    const text = entryText(page);
    const size = bytes.encode(text).length;
    let part = parts.at(-1);
    if (!part || part.texts.length === MAX_URLS || part.size + size > most) parts.push((part = { texts: [], size: 0 }));
    part.texts.push(text);
    part.size += size;
  }
  const document = (name: string, { texts }: { texts: string[] }) => ({
    name: name + ending,
    text: begin + texts.join('') + END,
    entries: texts.length,
  });
  if (parts.length <= 1) return [document('sitemap.xml', parts[0] ?? { texts: [] })];
  const documents = parts.map((part, i) => document(`sitemap-${i + 1}.xml`, part));
  const entries = documents.map(({ name }) => `  <sitemap>\n    <loc>${escaped(base + name)}</loc>\n  </sitemap>\n`);
  const text = `${HEAD}<sitemapindex xmlns="${NAMESPACE}">\n${entries.join('')}</sitemapindex>\n`;
  return [{ name: `sitemap.xml${ending}`, text, entries: entries.length }, ...documents];
}
