import type { Incoming, PageGraph } from './graph';

export interface Depths {
  /** Fewest clicks from a start page; −1 without a route. */
  depth: Int32Array;
  /** A page before on a shortest way; −1 at a start page and without a route. */
  parent: Int32Array;
  /** The pages that are reached, nearest first; each stands behind its parent. */
  order: Uint32Array;
}

/**
 * Breadth-first search from the start pages in which redirects and meta refreshes cost no click.
 * @param most how many clicks are taken at the most
 * @param closed a page that no way may pass; −1 for none
 * @param ends other than 0 for pages from which no click is taken
 */
export function clickDepths(
  graph: PageGraph,
  starts: readonly number[],
  most = Infinity,
  closed = -1,
  ends: ArrayLike<number> | null = null,
): Depths {
  const { count, offsets, targets, hop } = graph;
  const depth = new Int32Array(count).fill(-1);
  const parent = new Int32Array(count).fill(-1);
  const queue = new Uint32Array(count);
  let end = 0;
  // As if it had been reached before, so that nothing is looked for behind it.
  if (closed >= 0) depth[closed] = 0;
  for (const start of starts)
    if (depth[start] < 0) {
      depth[start] = 0;
      queue[end++] = start;
    }
  let levelStart = 0;
  for (let level = 0; levelStart < end; level++) {
    // What is reached without a click belongs to the same level, so `end` may move while this runs.
    for (let i = levelStart; i < end; i++) {
      const to = hop[queue[i]];
      if (to < 0 || depth[to] >= 0) continue;
      depth[to] = level;
      parent[to] = queue[i];
      queue[end++] = to;
    }
    const levelEnd = end;
    if (level >= most) break;
    for (let i = levelStart; i < levelEnd; i++) {
      const page = queue[i];
      if (ends !== null && ends[page] !== 0) continue;
      const stop = offsets[page + 1];
      for (let at = offsets[page]; at < stop; at++) {
        const target = targets[at];
        if (depth[target] >= 0) continue;
        depth[target] = level + 1;
        parent[target] = page;
        queue[end++] = target;
      }
    }
    levelStart = levelEnd;
  }
  if (closed >= 0) depth[closed] = -1;
  return { depth, parent, order: queue.slice(0, end) };
}

/**
 * The page above another in the tree of shortest routes: of those that could stand before it, the one with the most
 * share, then the one whose address comes first (pages are numbered in that order).
 * @returns −1 at a start page and without a route
 */
export function parentOf(
  { depth, parent }: Pick<Depths, 'depth' | 'parent'>,
  { offsets, sources }: Incoming,
  page: number,
  share: ArrayLike<number>,
): number {
  let before = parent[page];
  // Where no click leads from the level above, a redirect on the same level does.
  if (before < 0 || depth[before] === depth[page]) return before;
  for (let i = offsets[page]; i < offsets[page + 1]; i++) {
    const source = sources[i];
    const better = share[source] - share[before];
    if (depth[source] === depth[page] - 1 && (better > 0 || (better === 0 && source < before))) before = source;
  }
  return before;
}

/** One shortest route: the pages from a start to `page`, both included; empty when there is none. */
export function routeTo(
  depths: Pick<Depths, 'depth' | 'parent'>,
  pages: Incoming,
  page: number,
  share: ArrayLike<number>,
): number[] {
  const route: number[] = [];
  if (depths.depth[page] >= 0) for (let at = page; at >= 0; at = parentOf(depths, pages, at, share)) route.push(at);
  return route.reverse();
}

/**
 * The pages that lose every route when some are gone. Only pages whose known way passes what is gone are in question;
 * they keep a route if one of the others links to them, or one of them that does.
 * @param gone a bit a page, 32 in each number, lowest first: so many links are looked at that the bits must be near
 * @returns the same for the pages that are gone and those that go with them
 */
export function unreachedWithout(
  { count, offsets, targets }: PageGraph,
  { depth, parent, order }: Depths,
  gone: Uint32Array,
): Uint32Array {
  const unreached = new Uint32Array(gone.length);
  const has = (bits: Uint32Array, page: number) => (bits[page >>> 5] >>> (page & 31)) & 1;
  let inQuestion = 0;
  for (const page of order) {
    const isGone = has(gone, page);
    if (!isGone && (parent[page] < 0 || !has(unreached, parent[page]))) continue;
    unreached[page >>> 5] |= 1 << (page & 31);
    inQuestion += 1 - isGone;
  }
  if (inQuestion === 0) return unreached;
  const before = unreached.slice();
  const found: number[] = [];
  const openFrom = (page: number) => {
    const stop = offsets[page + 1];
    for (let at = offsets[page]; at < stop; at++) {
      const target = targets[at];
      const bit = 1 << (target & 31);
      if ((unreached[target >>> 5] & bit) === 0 || (gone[target >>> 5] & bit) !== 0) continue;
      unreached[target >>> 5] &= ~bit;
      found.push(target);
    }
  };
  for (let page = 0; page < count; page++) if (depth[page] >= 0 && !has(before, page)) openFrom(page);
  for (let page = found.pop(); page !== undefined; page = found.pop()) openFrom(page);
  return unreached;
}
