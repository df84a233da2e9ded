import type { Message } from '$core/messages';
import { sitemapReader } from '$core/sitemap';
import type { SitemapEntry } from '$core/sitemap';

/** What a piece of a sitemap holds. */
export interface SitemapBatch {
  /** Entries of a urlset, a text file or a feed. */
  urls: SitemapEntry[];
  /** Entries of an index. */
  sitemaps: SitemapEntry[];
  /** Whether the file has turned out to be a feed. */
  isFeed: boolean;
  /** Ends the reading. */
  fault: { message: Message; line: number } | null;
}

/** Makes the parser of one sitemap: it takes the file piece by piece, null at its end. */
export function sitemapParser(): (piece: string | null) => SitemapBatch {
  let batch: SitemapBatch;
  let isFeed = false;
  const reader = sitemapReader({
    onUrl: (entry) => batch.urls.push(entry),
    onSitemap: (entry) => batch.sitemaps.push(entry),
    onFeed: () => (isFeed = true),
    onFault: (message, line) => (batch.fault = { message, line }),
  });
  return (piece) => {
    batch = { urls: [], sitemaps: [], isFeed, fault: null };
    if (piece === null) reader.end();
    else reader.write(piece);
    return { ...batch, isFeed };
  };
}
