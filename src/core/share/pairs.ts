import { CLICK_KIND, placements } from '../links';
import type { Placement } from '../links';
import { nofollowRels } from '../reach';
import type { Base, ColumnReader } from '../snapshot';

/** What a link weighs by where it stands; in `main`, and in no landmark, it weighs 1. */
export type PlacementWeights = Record<Exclude<Placement, 'none' | 'main'>, number>;
export const evenWeights: PlacementWeights = { header: 1, nav: 1, aside: 1, footer: 1 };

/** What the pairs of a site are made of. */
export interface PairBase extends Pick<Base, 'count' | 'links' | 'phrases'> {
  column: ColumnReader<'page_nofollow'>;
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
 * Makes what goes through the distinct pairs of click links between inside pages, self-links apart. It hands numbers
 * over and calls nobody: for millions of pages a function for each would cost more than the pairs.
 */
export function pairsOf({ count, links, phrases, column }: PairBase, weights: PlacementWeights): Pairs {
  const { offsets, target: targetOf, kind, rel, placement } = links;
  const nofollowRel = nofollowRels(phrases);
  const pageNofollow = column('page_nofollow');
  const weightOf = placements.map((name) => (name === 'none' || name === 'main' ? 1 : weights[name]));
  /** Of each page the place at which it was met last, counted on from one look to the next. */
  const met = new Int32Array(count).fill(-1);
  let base = 0;
  const pairs: Pairs = { lookAt, targets: [], weights: [], followed: [] };
  return pairs;

  function lookAt(page: number): number {
    if (base > MAX_PLACE) {
      met.fill(-1);
      base = 0;
    }
    let found = 0;
    const mayFollow = pageNofollow[page] !== 1;
    for (let link = offsets[page]; link < offsets[page + 1]; link++) {
      const target = targetOf[link];
      if (kind[link] !== CLICK_KIND || target >= count || target === page) continue;
      let at = met[target] - base;
      if (at < 0) {
        at = found++;
        met[target] = base + at;
        pairs.targets[at] = target;
        pairs.weights[at] = 0;
        pairs.followed[at] = false;
      }
      const weight = weightOf[placement[link]];
      if (weight > pairs.weights[at]) pairs.weights[at] = weight;
      if (mayFollow && nofollowRel[rel[link]] === 0) pairs.followed[at] = true;
    }
    base += found;
    return found;
  }
}

/** A page has fewer links than remain above this. */
const MAX_PLACE = 2 ** 30;
