/** New links to pages that have too few: each from the page that suits best, within limits. */
import type { Incoming } from '../reach';
import type { PlanLimits } from './plan';
import type { NewLink } from './spread';

export type SourceLimits = Pick<PlanLimits, 'sources' | 'newLinks' | 'groups' | 'allowed'>;

/** What tells sources apart. */
export interface SourceOrder {
  /** How well a page suits as source of a link to another; the higher, the better. */
  suits: (source: number, target: number) => number;
  /** Of pages that suit as well the stronger one comes first. */
  strength: (source: number) => number;
  /** How many links are looked for. */
  links: number;
}

/** So many pairs of pages are compared in all, as a person waits; for each link a few of the strongest at least. */
const MOST_PAIRS = 5_000_000;
const FEWEST_COMPARED = 100;

/** Finds sources for new links, one after the other. */
export function sourceFinder(
  pages: Incoming,
  { sources, newLinks, groups, allowed }: SourceLimits,
  { suits, strength, links }: SourceOrder,
) {
  const used = new Map<number, number>();
  /** Those that may get another link, the strongest first. */
  let usable: number[] = [];
  sources.forEach((is, page) => is && usable.push(page));
  usable.sort((a, b) => strength(b) - strength(a));
  const mostCompared = Math.max(FEWEST_COMPARED, Math.ceil(MOST_PAIRS / Math.max(1, links)));
  /** The pages that link to each target, by links that were there and by those that were taken. */
  const linking = new Map<number, Set<number>>();
  const linkingTo = (target: number) => {
    let known = linking.get(target);
    if (!known)
      linking.set(target, (known = new Set(pages.sources.subarray(pages.offsets[target], pages.offsets[target + 1]))));
    return known;
  };
  return {
    /** The best source for one more link to a target, of pages that do not link to it yet; −1 without any. */
    best(target: number): number {
      const known = linkingTo(target);
      let best = -1;
      let [most, fewest, compared] = [-Infinity, 0, 0];
      for (const source of usable) {
        if (source === target || known.has(source) || (groups && groups[source] !== groups[target])) continue;
        if (++compared > mostCompared) break;
        if (allowed && !allowed(source, target)) continue;
        const links = used.get(source) ?? 0;
        const value = suits(source, target);
        if (value < most || (value === most && links >= fewest)) continue;
        [best, most, fewest] = [source, value, links];
      }
      return best;
    },
    take({ source, target }: NewLink): void {
      const links = (used.get(source) ?? 0) + 1;
      used.set(source, links);
      if (links >= newLinks) usable = usable.filter((one) => one !== source);
      linkingTo(target).add(source);
    },
  };
}
