import { CLICK_KIND, placements } from '../links';
import type { Placement } from '../links';
import { nofollowRels } from '../reach';
import type { Base, Columns } from '../snapshot';

/** What a link weighs by where it stands; in `main`, and in no landmark, it weighs 1. */
export type PlacementWeights = Record<Exclude<Placement, 'none' | 'main'>, number>;
export const evenWeights: PlacementWeights = { header: 1, nav: 1, aside: 1, footer: 1 };

/** What the pairs of a site are made of. */
export interface PairBase extends Pick<Base, 'count' | 'links' | 'phrases'> {
  columns: Columns<'page_nofollow'>;
}

/** The distinct targets of one page at a time, in arrays that hold until the next page is looked at. */
export interface Pairs {
  /** Looks at a page. @returns how many targets it has */
  lookAt: (page: number) => number;
  targets: number[];
  /** The weight of the heaviest link to each. */
  weights: number[];
  /** Whether any link to it is followed. */
  followed: boolean[];
}

/**
 * Makes what goes through the distinct pairs of click links between inside pages, self-links apart. It hands numbers over
 * and calls nobody: for millions of pages a function for each would cost more than the pairs.
 */
export function pairsOf({ count, links, phrases, columns }: PairBase, weights: PlacementWeights): Pairs {
  const { offsets, target: targetOf, kind, rel, placement } = links;
  const nofollowRel = nofollowRels(phrases);
  const pageNofollow = columns.page_nofollow;
  const weightOf = placements.map((name) => (name === 'none' || name === 'main' ? 1 : weights[name]));
  const last = new Int32Array(count).fill(-1);
  const place = new Uint32Array(count);
  const pairs: Pairs = { lookAt, targets: [], weights: [], followed: [] };
  return pairs;

  function lookAt(page: number): number {
    let found = 0;
    for (let link = offsets[page]; link < offsets[page + 1]; link++) {
      const target = targetOf[link];
      if (kind[link] !== CLICK_KIND || target >= count || target === page) continue;
      if (last[target] !== page) {
        last[target] = page;
        place[target] = found;
        pairs.targets[found] = target;
        pairs.weights[found] = 0;
        pairs.followed[found++] = false;
      }
      const at = place[target];
      pairs.weights[at] = Math.max(pairs.weights[at], weightOf[placement[link]]);
      if (pageNofollow[page] !== 1 && nofollowRel[rel[link]] === 0) pairs.followed[at] = true;
    }
    // A page may be asked for again.
    for (let i = 0; i < found; i++) last[pairs.targets[i]] = -1;
    return found;
  }
}
