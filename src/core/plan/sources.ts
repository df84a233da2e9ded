/** New links to pages that have too few: each from the page that suits best, within limits. */
import type { Incoming } from '../reach';
import type { NewLink } from './spread';

export interface SourceLimits {
  /** 1 for the pages that may get new links on them. */
  sources: Uint8Array;
  newLinks: number;
  groups: ArrayLike<number> | null;
  /** How alike a source must be to its target, from 0 to 1. */
  alike: number;
}

/** Beyond so many pairs of pages only the strongest sources are looked at: a person waits. */
const MOST_PAIRS = 40_000_000;

/** Finds sources for new links one after the other. */
export function sourceFinder(
  pages: Incoming,
  { sources, newLinks, groups, alike }: SourceLimits,
  /** The better of two sources has more; sources are tried in the order of their strength. */
  {
    likeness,
    strength,
    targets,
  }: {
    likeness: (source: number, target: number) => number;
    strength: (source: number) => number;
    targets: number;
  },
) {
  const used = new Map<number, number>();
  const usable: number[] = [];
  sources.forEach((is, page) => is && usable.push(page));
  usable.sort((a, b) => strength(b) - strength(a));
  usable.length = Math.min(usable.length, Math.ceil(MOST_PAIRS / Math.max(1, targets)));
  const made = new Map<number, Set<number>>();
  const linkingTo = (target: number) => {
    let linking = made.get(target);
    if (!linking)
      made.set(target, (linking = new Set(pages.sources.subarray(pages.offsets[target], pages.offsets[target + 1]))));
    return linking;
  };
  return {
    /** The sources for some more links to a target, the best first: pages that do not link to it yet. */
    best(target: number, count: number): { source: number; likeness: number }[] {
      const linking = linkingTo(target);
      const found: { source: number; likeness: number }[] = [];
      for (const source of usable) {
        if (source === target || linking.has(source) || (used.get(source) ?? 0) >= newLinks) continue;
        if (groups && groups[source] !== groups[target]) continue;
        const one = { source, likeness: likeness(source, target) };
        if (one.likeness < alike) continue;
        // Of sources that are as alike the one that has got fewer links comes first, then the stronger one.
        const at = found.findLastIndex(
          (other) =>
            other.likeness > one.likeness ||
            (other.likeness === one.likeness && (used.get(other.source) ?? 0) <= (used.get(source) ?? 0)),
        );
        if (at + 1 < count) found.splice(at + 1, 0, one);
        if (found.length > count) found.pop();
      }
      return found;
    },
    take({ source, target }: NewLink): void {
      used.set(source, (used.get(source) ?? 0) + 1);
      linkingTo(target).add(source);
    },
  };
}
