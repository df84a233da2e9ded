import { costsNoClick, isResource, relSaysNofollow } from '$core/links';
import type { Link, LinkKind } from '$core/links';
import type { Scope } from '$core/scope';
import type { CrawlSettings, Followable } from '$core/settings';
import { ASIDE_RANK, EXTERNAL_RANK, RESOURCE_RANK, UNLINKED_RANK } from '$server/index';
import type { Discovery, PageResult } from '$server/index';

const followName: Partial<Record<LinkKind, Followable>> = {
  canonical: 'canonical',
  next: 'paging',
  prev: 'paging',
  hreflang: 'hreflang',
  amphtml: 'amphtml',
  iframe: 'iframe',
  refresh: 'refresh',
};

/** A page may carry each address once: the link that makes it known best decides. */
const better = (a: Discovery | undefined, b: Discovery) => (!a || b.rank < a.rank ? b : a);

/**
 * What the links of a page add to the frontier.
 * @param selectionOnly when only a selection of a site is fetched again, everything else is known and stays aside
 */
export function discoveriesOf(
  { turn, links, pageNofollow }: Pick<PageResult, 'turn' | 'links' | 'pageNofollow'>,
  scope: Scope,
  settings: Pick<CrawlSettings, 'follow' | 'check' | 'external'>,
  selectionOnly: boolean,
): Discovery[] {
  const found = new Map<string, Discovery>();
  for (const link of links) {
    const place = placeOf(link);
    if (!place) continue;
    const discovery = { address: link.target, ...(selectionOnly ? { rank: ASIDE_RANK, hops: 0 } : place) };
    found.set(link.target, better(found.get(link.target), discovery));
  }
  return [...found.values()];

  function placeOf({ kind, target, rel, malformed }: Link): Pick<Discovery, 'rank' | 'hops'> | null {
    if (malformed) return null;
    if (isResource(kind)) return settings.check[kind] ? { rank: RESOURCE_RANK, hops: 0 } : null;
    if (!scope.inside(target))
      return kind === 'click' && settings.external === 'check' ? { rank: EXTERNAL_RANK, hops: 0 } : null;
    // A feed or another edition that a page declares is no page of the site by that alone.
    if (kind === 'alternate') return null;
    if (!scope.keeps(target).keeps) return { rank: ASIDE_RANK, hops: 0 };
    const name = followName[kind];
    if (name && !settings.follow[name]) return { rank: ASIDE_RANK, hops: 0 };
    if (costsNoClick(kind)) return { rank: turn.rank, hops: turn.hops + 1 };
    // Declared relations make an address known, but are no way to it.
    if (kind !== 'click') return { rank: UNLINKED_RANK, hops: 0 };
    const nofollow = pageNofollow === true || relSaysNofollow(rel);
    return nofollow && !settings.follow.nofollow ? { rank: ASIDE_RANK, hops: 0 } : { rank: turn.rank + 1, hops: 0 };
  }
}
