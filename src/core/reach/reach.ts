/**
 * Reach: how far every page is from the start (docs/MEANINGS.md, "Reach"). All functions are pure and take a
 * {@link LinkGraph}, whose nodes 0 to count − 1 are the inside addresses.
 */

/** Links in compressed sparse rows: the links of page `i` are the entries `offsets[i]` to `offsets[i + 1] − 1`. */
export interface LinkGraph {
  count: number;
  offsets: Uint32Array;
  /** Page that each link leads to; `count` and above are outside addresses. */
  targets: Uint32Array;
  /** For each link 1 if a person clicks it, 0 if it carries on without a click, 2 if it is no way for a visitor. */
  cost: Uint8Array;
}

export const CLICK = 1;
export const NO_CLICK = 0;
export const NO_WAY = 2;

export interface Depths {
  /** Fewest clicks from a start page; −1 without a route. */
  depth: Int32Array;
  /** The page before on the route; −1 at a start page and without a route. */
  parent: Int32Array;
}

/**
 * Breadth-first search from the start pages in which redirects and meta refreshes cost no click. Among routes of equal
 * length the one is kept whose page before comes first; pages are numbered in the order of their addresses.
 */
export function clickDepths(graph: LinkGraph, starts: readonly number[]): Depths {
  const { count, offsets, targets, cost } = graph;
  const depth = new Int32Array(count).fill(-1);
  const parent = new Int32Array(count).fill(-1);
  const queue = new Uint32Array(count);
  let end = 0;
  for (const start of starts)
    if (depth[start] < 0) {
      depth[start] = 0;
      queue[end++] = start;
    }
  let levelStart = 0;
  while (levelStart < end) {
    // What is reached without a click belongs to the same level, so `end` may move while this runs.
    for (let i = levelStart; i < end; i++) {
      const page = queue[i];
      for (let link = offsets[page]; link < offsets[page + 1]; link++) {
        const target = targets[link];
        if (cost[link] !== NO_CLICK || target >= count || depth[target] >= 0) continue;
        depth[target] = depth[page];
        parent[target] = page;
        queue[end++] = target;
      }
    }
    const levelEnd = end;
    for (let i = levelStart; i < levelEnd; i++) {
      const page = queue[i];
      for (let link = offsets[page]; link < offsets[page + 1]; link++) {
        const target = targets[link];
        if (cost[link] !== CLICK || target >= count) continue;
        if (depth[target] < 0) {
          depth[target] = depth[page] + 1;
          parent[target] = page;
          queue[end++] = target;
        } else if (depth[target] === depth[page] + 1 && page < parent[target]) parent[target] = page;
      }
    }
    levelStart = levelEnd;
  }
  return { depth, parent };
}

/** The pages from a start to `page`, both included; empty when there is no route. */
export function routeTo({ depth, parent }: Depths, page: number): number[] {
  if (depth[page] < 0) return [];
  const route = [page];
  while (parent[route[0]] >= 0) route.unshift(parent[route[0]]);
  return route;
}

export interface LinkCounts {
  /** Occurrences of click links, self-links apart. */
  linksIn: Int32Array;
  linksOut: Int32Array;
  /** Distinct inside pages, self-links apart. */
  pagesLinking: Int32Array;
  pagesLinked: Int32Array;
  /** Occurrences of click links that lead outside. */
  externalLinks: Int32Array;
}

/** Counts click links. `linksOut` counts all of a page, `externalLinks` those of them that lead outside. */
export function countLinks({ count, offsets, targets, cost }: LinkGraph): LinkCounts {
  const linksIn = new Int32Array(count);
  const linksOut = new Int32Array(count);
  const pagesLinking = new Int32Array(count);
  const pagesLinked = new Int32Array(count);
  const externalLinks = new Int32Array(count);
  /** The last page that was seen to link to each page: a cheap test for "counted already". */
  const lastLinking = new Int32Array(count).fill(-1);
  for (let page = 0; page < count; page++)
    for (let link = offsets[page]; link < offsets[page + 1]; link++) {
      const target = targets[link];
      if (cost[link] !== CLICK || target === page) continue;
      linksOut[page]++;
      if (target >= count) {
        externalLinks[page]++;
        continue;
      }
      linksIn[target]++;
      if (lastLinking[target] === page) continue;
      lastLinking[target] = page;
      pagesLinked[page]++;
      pagesLinking[target]++;
    }
  return { linksIn, linksOut, pagesLinking, pagesLinked, externalLinks };
}

export const reaches = ['reached', 'orphan', 'island'] as const;
export type Reach = (typeof reaches)[number];

/** `reached`; `orphan`: no inside page links to it; `island`: only unreached pages do. Indexes into {@link reaches}. */
export function reachOf(depth: Int32Array, pagesLinking: Int32Array): Uint8Array {
  return Uint8Array.from(depth, (clicks, page) => (clicks >= 0 ? 0 : pagesLinking[page] === 0 ? 1 : 2));
}

/**
 * Islands: weakly connected groups of two and more among the unreached pages, by click links.
 * @returns for each page the number of its island, counted from 1 in the order of size; −1 for all others
 */
export function islandNumbers({ count, offsets, targets, cost }: LinkGraph, depth: Int32Array): Int32Array {
  const root = Int32Array.from({ length: count }, (_, page) => page);
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
  return Int32Array.from({ length: count }, (_, page) => (depth[page] < 0 ? (numberOf.get(find(page)) ?? -1) : -1));
}
