/**
 * Plans which links of a template to remove so that pages have no more than some: each removes one link from all pages
 * that have it in the same landmark. Greedily, the one first that most pages need.
 */
import { CLICK_KIND, placements } from '../links';
import type { Base } from '../snapshot';

/** A link that pages have in the same landmark. */
export interface SharedLink {
  target: number;
  placement: number;
  pages: number[];
}

export interface Removal extends SharedLink {
  /** The pages with too many links that have it. */
  crowded: number;
}

export interface FewerPlan {
  removals: Removal[];
  /** Pages that have too many links, and how many of them still do. */
  short: number;
  missed: number;
}

/** The click links that pages have outside of their content, by target and landmark. */
function sharedLinks({ count, links }: Pick<Base, 'count' | 'links'>): SharedLink[] {
  const shared = new Map<number, SharedLink>();
  for (let page = 0; page < count; page++)
    for (let link = links.offsets[page]; link < links.offsets[page + 1]; link++) {
      const [target, placement] = [links.target[link], links.placement[link]];
      if (links.kind[link] !== CLICK_KIND || ['main', 'none'].includes(placements[placement])) continue;
      const key = target * placements.length + placement;
      const one = shared.get(key) ?? { target, placement, pages: [] };
      shared.set(key, one);
      if (one.pages.at(-1) !== page) one.pages.push(page);
    }
  return [...shared.values()].filter(({ pages }) => pages.length > 1);
}

/**
 * @param linksOut how many links each page has
 * @param worth what a link is worth to its readers, the same for many; null where it must stay. Of two that as many
 *   pages need, the one that is worth less goes.
 */
export function planFewerLinks(
  base: Pick<Base, 'count' | 'links'>,
  { most, wanted, linksOut, budget }: { most: number; wanted: Uint8Array; linksOut: Int32Array; budget: number },
  worth: (link: SharedLink) => number | null,
): FewerPlan {
  const excess = linksOut.map((links, page) => (wanted[page] ? Math.max(0, links - most) : 0));
  const short = excess.reduce((sum, one) => sum + Number(one > 0), 0);
  const crowdedOf = ({ pages }: SharedLink) => pages.reduce((sum, page) => sum + Number(excess[page] > 0), 0);
  let candidates = sharedLinks(base).flatMap((link) => {
    const keep = worth(link);
    return keep === null ? [] : [{ link, keep, crowded: crowdedOf(link) }];
  });
  const removals: Removal[] = [];
  while (removals.length < budget) {
    candidates = candidates
      .filter(({ crowded }) => crowded > 0)
      .sort((a, b) => b.crowded - a.crowded || a.keep - b.keep);
    // What a link is needed by only becomes less, so that the count of before bounds it from above (Minoux 1978).
    let chosen: (typeof candidates)[number] | null = null;
    for (const one of candidates) {
      if (chosen && one.crowded <= chosen.crowded) break;
      one.crowded = crowdedOf(one.link);
      if (one.crowded > (chosen?.crowded ?? 0)) chosen = one;
    }
    if (!chosen) break;
    const { link, crowded } = chosen;
    candidates = candidates.filter((one) => one !== chosen);
    removals.push({ ...link, crowded });
    for (const page of link.pages) if (excess[page] > 0) excess[page]--;
  }
  return { removals, short, missed: excess.reduce((sum, one) => sum + Number(one > 0), 0) };
}
