import { CLICK } from './graph';
import type { LinkGraph, PageGraph } from './graph';

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

/**
 * Strongly connected groups: pages of a group can all be reached from each other. Tarjan, "Depth-first search and linear
 * graph algorithms" (1972), without recursion.
 * @returns for each page the number of its group, from 0; a group is numbered after those it leads to
 */
export function strongGroups({ count, offsets, targets }: PageGraph): Int32Array {
  const group = new Int32Array(count).fill(-1);
  /** Order of the first visit, from 1; lowered to that of the oldest page of the stack that is reached from here. */
  const low = new Int32Array(count);
  const waiting = new Uint32Array(count);
  const path = new Uint32Array(count);
  const next = offsets.slice(0, count);
  let visited = 0;
  let groups = 0;
  let waits = 0;
  for (let root = 0; root < count; root++) {
    if (low[root] !== 0) continue;
    let top = 0;
    path[0] = root;
    waiting[waits++] = root;
    low[root] = ++visited;
    let born = visited;
    /** Orders of first visit along the path. */
    const births = [born];
    while (top >= 0) {
      const page = path[top];
      const stop = offsets[page + 1];
      let lowest = low[page];
      let child = -1;
      let at = next[page];
      for (; at < stop; at++) {
        const target = targets[at];
        const seen = low[target];
        if (seen === 0) {
          child = target;
          at++;
          break;
        }
        if (group[target] < 0 && seen < lowest) lowest = seen;
      }
      low[page] = lowest;
      next[page] = at;
      if (child >= 0) {
        waiting[waits++] = child;
        path[++top] = child;
        low[child] = born = ++visited;
        births[top] = born;
        continue;
      }
      if (lowest === births[top]) {
        let member: number;
        do group[(member = waiting[--waits])] = groups;
        while (member !== page);
        groups++;
      }
      if (--top >= 0 && lowest < low[path[top]] && group[page] < 0) low[path[top]] = lowest;
    }
  }
  return group;
}
