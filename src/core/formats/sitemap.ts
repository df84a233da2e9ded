/** The sitemap of a selection of pages. */
import { linkKinds } from '../links';
import { isListable, writeSitemaps } from '../sitemap';
import type { SitemapDocument, SitemapPage } from '../sitemap';
import { addressAt, textAt } from '../snapshot';
import { originOf } from '../url';
import { differenceOfSorted, unifiedDifference } from './difference';
import type { View } from '../view';

const HREFLANG = linkKinds.indexOf('hreflang');

export interface SitemapRequest {
  /** Numbers of the pages. */
  pages: readonly number[];
  /** The address of the folder that the files will be published in, with a slash at its end. */
  base: string;
  /** W3C dates that something shows, by address. */
  lastmods: ReadonlyMap<string, string>;
  /** Whether editions in other languages are named. */
  hreflang: boolean;
  gzip: boolean;
}

/** The editions that a page names by hreflang, in the order in which it does. */
function alternatesOf(snapshot: View, page: number): SitemapPage['alternates'] {
  const { offsets, kind, target, anchor } = snapshot.links;
  const found: { language: string; address: string }[] = [];
  for (let link = offsets[page]; link < offsets[page + 1]; link++)
    if (kind[link] === HREFLANG)
      found.push({ language: snapshot.phrases[anchor[link]], address: addressAt(snapshot, target[link]) });
  return found;
}

/**
 * Writes the sitemaps of some pages.
 * @returns the files, and how many pages are not in them because a sitemap there may not list them: those of other
 *   hosts,
 *   outside the folder, or with addresses that are too long
 */
export function sitemapsOf(
  snapshot: View,
  { pages, base, lastmods, hreflang, gzip }: SitemapRequest,
): { documents: SitemapDocument[]; listed: number; leftOut: number } {
  const origin = `${originOf(base)}/`;
  const folder = base.startsWith(origin) ? base : origin;
  const fits = pages.filter((page) => {
    const address = addressAt(snapshot, page);
    return address.startsWith(folder) && isListable(address);
  });
  function* entries(): Generator<SitemapPage> {
    for (const page of fits) {
      const address = addressAt(snapshot, page);
      yield {
        address,
        lastmod: lastmods.get(address) ?? null,
        alternates: hreflang ? alternatesOf(snapshot, page) : [],
      };
    }
  }
  const documents = writeSitemaps(entries(), base, { ending: gzip ? '.gz' : '', withAlternates: hreflang });
  return { documents, listed: fits.length, leftOut: pages.length - fits.length };
}

/**
 * What would change if the sitemaps of a site listed some pages: a unified diff of lists, an address a line with its
 * lastmod.
 * @returns '' when nothing would
 */
export function sitemapDifference(
  snapshot: View,
  { pages, lastmods }: Pick<SitemapRequest, 'pages' | 'lastmods'>,
): string {
  const line = (page: number, lastmod: string | null | undefined) =>
    [addressAt(snapshot, page), lastmod].filter(Boolean).join(' ');
  const byAddress = (chosen: Iterable<number>, lastmodOf: (page: number) => string | null | undefined) =>
    [...chosen]
      .map((page) => [addressAt(snapshot, page), line(page, lastmodOf(page))] as const)
      .sort(([a], [b]) => (a < b ? -1 : Number(a > b)));
  const listed = new Set(snapshot.listings.map(({ page }) => page));
  const live = byAddress(listed, (page) => textAt(snapshot, 'sitemap_lastmod', page));
  const fresh = byAddress(pages, (page) => lastmods.get(addressAt(snapshot, page)));
  return unifiedDifference('live', 'written', differenceOfSorted(live, fresh));
}
