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
 */
export function clickDepths(graph: PageGraph, starts: readonly number[], most = Infinity): Depths {
  const { count, offsets, targets, hop } = graph;
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
  return { depth, parent, order: queue.slice(0, end) };
}

/**
 * One shortest route to a page: of the pages that could stand before another, the one with the most share does, then the
 * one whose address comes first (pages are numbered in that order).
 * @returns the pages from a start to `page`, both included; empty when there is no route
 */
export function routeTo(
  { depth, parent }: Pick<Depths, 'depth' | 'parent'>,
  { offsets, sources }: Incoming,
  page: number,
  share: ArrayLike<number>,
): number[] {
  if (depth[page] < 0) return [];
  const route = [page];
  for (let at = page; parent[at] >= 0; route.push(at)) {
    // Where no click leads from the level above, a redirect on the same level does.
    let before = parent[at];
    if (depth[before] < depth[at])
      for (let i = offsets[at]; i < offsets[at + 1]; i++) {
        const source = sources[i];
        const better = share[source] - share[before];
        if (depth[source] === depth[at] - 1 && (better > 0 || (better === 0 && source < before))) before = source;
      }
    at = before;
  }
  return route.reverse();
}

/**
 * The pages that lose every route when some are gone. Only pages whose known way passes what is gone are in question;
 * they keep a route if one of the others links to them, or one of them that does.
 * @param closed 1 for the pages that are gone
 * @returns 1 for the pages that are gone and those that go with them
 */
export function lostWithout(
  { offsets, targets }: PageGraph,
  { parent, order }: Depths,
  closed: Uint8Array,
): Uint8Array {
  const lost = new Uint8Array(closed.length);
  for (const page of order) if (closed[page] === 1 || (parent[page] >= 0 && lost[parent[page]] === 1)) lost[page] = 1;
  const inQuestion = lost.slice();
  const found: number[] = [];
  const openFrom = (page: number) => {
    const stop = offsets[page + 1];
    for (let at = offsets[page]; at < stop; at++) {
      const target = targets[at];
      if (lost[target] === 0 || closed[target] === 1) continue;
      lost[target] = 0;
      found.push(target);
    }
  };
  for (const page of order) if (inQuestion[page] === 0) openFrom(page);
  for (let page = found.pop(); page !== undefined; page = found.pop()) openFrom(page);
  return lost;
}

/**
 * The pages that the longest routes pass: for each page on a shortest way to one of the deepest, how many of the deepest
 * lie behind it or are it. −1 for all others.
 */
export function onLongestRoutes({ depth, parent, order }: Depths): Int32Array {
  const passing = new Int32Array(depth.length).fill(-1);
  const deepest = order.length ? depth[order[order.length - 1]] : -1;
  // Nearest last: what is counted for a page is handed on to the one before it.
  for (let i = order.length - 1; i >= 0; i--) {
    const page = order[i];
    if (depth[page] === deepest) passing[page] = Math.max(0, passing[page]) + 1;
    const before = parent[page];
    if (passing[page] > 0 && before >= 0) passing[before] = Math.max(0, passing[before]) + passing[page];
  }
  return passing;
}
