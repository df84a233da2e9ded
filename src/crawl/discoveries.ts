import { ownCopy } from '$core/strings';
import { costsNoClick, isResource, relSaysNofollow } from '$core/links';
import type { Link, LinkKind } from '$core/links';
import type { Scope } from '$core/scope';
import type { CrawlSettings, Followable } from '$core/settings';
// Not from its index: a thread that reads documents has no use for the database.
import { boundedMap } from '$server/caches';
import { ASIDE_RANK, EXTERNAL_RANK, RESOURCE_RANK, UNLINKED_RANK } from '$server/crawls/ranks';
import type { Discovery, QueuedUrl } from '$server/index';

const followName: Partial<Record<LinkKind, Followable>> = {
  canonical: 'canonical',
  next: 'paging',
  prev: 'paging',
  hreflang: 'hreflang',
  amphtml: 'amphtml',
  iframe: 'iframe',
  refresh: 'refresh',
};

/** So many addresses are remembered, with the rank at which they were known. */
const REMEMBERED = 500_000;

/** What the links of a page add to the frontier. */
export type DiscoveriesOf = (
  page: Pick<QueuedUrl, 'rank' | 'hops'>,
  links: readonly Link[],
  pageNofollow: boolean | null,
) => Discovery[];

/**
 * Makes what finds the way on from the pages of one crawl. What it has known once it tells again only at a better rank:
 * menus repeat the same links on every page.
 * @param selectionOnly when only a selection of a site is fetched again, everything else is known and stays aside
 */
export function discoverer(
  scope: Scope,
  settings: Pick<CrawlSettings, 'follow' | 'check' | 'external'>,
  selectionOnly: boolean,
): DiscoveriesOf {
  const known = boundedMap<string, number>(REMEMBERED);
  return (page, links, pageNofollow) => {
    const found = new Map<string, Discovery>();
    for (const link of links) {
      const before = known.get(link.target) ?? Infinity;
      // No link leads nearer than this.
      if (before <= page.rank) continue;
      const place = placeOf(link, page, pageNofollow === true);
      if (!place) continue;
      const discovery = { address: link.target, ...(selectionOnly ? { rank: ASIDE_RANK, hops: 0 } : place) };
      if (before <= discovery.rank) continue;
      // An address may be a slice of its document.
      known.set(ownCopy(link.target), discovery.rank);
      found.set(link.target, discovery);
    }
    return [...found.values()];
  };

  function placeOf(
    { kind, target, rel, malformed }: Link,
    page: Pick<QueuedUrl, 'rank' | 'hops'>,
    pageNofollow: boolean,
  ): Pick<Discovery, 'rank' | 'hops'> | null {
    if (malformed) return null;
    if (isResource(kind)) return settings.check[kind] ? { rank: RESOURCE_RANK, hops: 0 } : null;
    if (!scope.inside(target))
      return kind === 'click' && settings.external === 'check' ? { rank: EXTERNAL_RANK, hops: 0 } : null;
    // A feed or another edition that a page declares is not a page of the site by that alone.
    if (kind === 'alternate') return null;
    if (!scope.keeps(target).keeps) return { rank: ASIDE_RANK, hops: 0 };
    const name = followName[kind];
    if (name && !settings.follow[name]) return { rank: ASIDE_RANK, hops: 0 };
    if (costsNoClick(kind)) return { rank: page.rank, hops: page.hops + 1 };
    // Declared relations make an address known, but are no way to it.
    if (kind !== 'click') return { rank: UNLINKED_RANK, hops: 0 };
    const nofollow = pageNofollow || relSaysNofollow(rel);
    return nofollow && !settings.follow.nofollow ? { rank: ASIDE_RANK, hops: 0 } : { rank: page.rank + 1, hops: 0 };
  }
}
