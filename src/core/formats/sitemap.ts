/** The sitemap of a selection of pages. */
import { linkKinds } from '../links';
import { isListable, writeSitemaps } from '../sitemap';
import type { SitemapDocument, SitemapPage } from '../sitemap';
import { addressAt } from '../snapshot';
import type { Snapshot } from '../snapshot';
import { originOf } from '../url';

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
function alternatesOf(snapshot: Snapshot, page: number): SitemapPage['alternates'] {
  const { offsets, kind, target, anchor } = snapshot.links;
  const found: { language: string; address: string }[] = [];
  for (let link = offsets[page]; link < offsets[page + 1]; link++)
    if (kind[link] === HREFLANG)
      found.push({ language: snapshot.phrases[anchor[link]], address: addressAt(snapshot, target[link]) });
  return found;
}

/**
 * Writes the sitemaps of some pages.
 * @returns the files, and how many pages are not in them because a sitemap there may not list them: those of other hosts,
 *   outside the folder, or with addresses that are too long
 */
export function sitemapsOf(
  snapshot: Snapshot,
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
