import { CLICK } from './graph';
import type { LinkGraph } from './graph';

/**
 * Islands: weakly connected groups of two and more among the unreached pages, by click links.
 * @returns for each page the number of its island, counted from 1 in the order of size; −1 for all others
 */
export function islandNumbers({ count, offsets, targets, cost }: LinkGraph, depth: Int32Array): Int32Array {
  const root = new Int32Array(count).map((_, page) => page);
  const find = (page: number): number => {
    while (root[page] !== page) page = root[page] = root[root[page]];
    return page;
  };
  for (let page = 0; page < count; page++) {
    if (depth[page] >= 0) continue;
    for (let link = offsets[page]; link < offsets[page + 1]; link++) {
      const target = targets[link];
      if (cost[link] !== CLICK || target >= count || depth[target] >= 0) continue;
      const [a, b] = [find(page), find(target)];
      // The smaller number stays the root, so that islands of equal size keep the order of their addresses.
      if (a !== b) root[Math.max(a, b)] = Math.min(a, b);
    }
  }
  const size = new Map<number, number>();
  for (let page = 0; page < count; page++) if (depth[page] < 0) size.set(find(page), (size.get(find(page)) ?? 0) + 1);
  const islands = [...size].filter(([, members]) => members > 1).sort((a, b) => b[1] - a[1] || a[0] - b[0]);
  const numberOf = new Map(islands.map(([first], i) => [first, i + 1]));
  return new Int32Array(count).map((_, page) => (depth[page] < 0 ? (numberOf.get(find(page)) ?? -1) : -1));
}

/** How many pages are on the island of each page; −1 for pages on none. */
export function islandSizes(islands: Int32Array): Int32Array {
  const sizes = new Map<number, number>();
  for (const island of islands) sizes.set(island, (sizes.get(island) ?? 0) + 1);
  return islands.map((island) => (island < 0 ? -1 : sizes.get(island)!));
}
