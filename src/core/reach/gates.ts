import type { Depths } from './depths';
import type { Incoming, PageGraph } from './graph';

/**
 * The dominator tree: for each page the last page that every route to it passes.
 * @param incoming the same graph by its targets
 * @param depths as `clickDepths` gives them for `starts`
 * @returns −1 for start pages, for pages that no single page stands before, and for those without a route
 */
export function dominators(
  graph: PageGraph,
  incoming: Incoming,
  depths: Depths,
  starts: readonly number[],
): Int32Array {
  return byIntersection(graph, incoming, depths) ?? bySemidominators(graph, incoming, starts);
}

/** Steps for each link, after which the tree is too deep for this way of working. */
const MAX_STEPS = 8;

/**
 * Cooper, Harvey and Kennedy, "A simple, fast dominance algorithm" (2001), in the order of the search by breadth: where
 * most pages can be reached on several ways, few links need be looked at. Deep trees can make it quadratic.
 * @returns null when it takes too many steps
 */
function byIntersection(graph: PageGraph, incoming: Incoming, { order, parent }: Depths): Int32Array | null {
  const { count, targets } = graph;
  // Pages are numbered from 1 in the order of the search; 0 stands before all start pages.
  const number = new Int32Array(count);
  order.forEach((page, i) => (number[page] = i + 1));
  const dominator = new Int32Array(order.length + 1);
  order.forEach((page, i) => (dominator[i + 1] = parent[page] < 0 ? 0 : number[parent[page]]));
  // A single start stands before all else, so that there nothing is left to look for.
  const first = order.length > 1 && parent[order[1]] < 0 ? 0 : 1;
  let steps = MAX_STEPS * (targets.length + count);
  for (let changed = true; changed;) {
    changed = false;
    for (let v = 1; v <= order.length; v++) {
      let common = dominator[v];
      if (common <= first) continue;
      const page = order[v - 1];
      const stop = incoming.offsets[page + 1];
      for (let i = incoming.offsets[page]; i < stop && common > first; i++) {
        let other = number[incoming.sources[i]];
        if (other === 0) continue;
        while (common !== other) {
          if (common > other) common = dominator[common];
          else other = dominator[other];
          steps--;
        }
      }
      if (common === dominator[v]) continue;
      dominator[v] = common;
      changed = true;
      if (steps < 0) return null;
    }
  }
  const result = new Int32Array(count).fill(-1);
  order.forEach((page, i) => (result[page] = dominator[i + 1] === 0 ? -1 : order[dominator[i + 1] - 1]));
  return result;
}

/**
 * Georgiadis, "Linear-time algorithms for dominators and related problems" (2005), "semi-NCA": Lengauer and Tarjan's
 * semidominators, found with path compression, then the nearest common ancestor. Never slow, and never as quick.
 */
export function bySemidominators(graph: PageGraph, incoming: Incoming, starts: readonly number[]): Int32Array {
  const { count, offsets, targets } = graph;
  // Vertices are numbered from 1 in the order of the search; 0 stands before all start pages.
  const order = new Int32Array(count);
  const pageAt = new Int32Array(count + 1);
  const parent = new Int32Array(count + 1);
  const found = depthFirst();

  const semi = new Int32Array(found + 1);
  const label = new Int32Array(found + 1);
  const ancestor = new Int32Array(found + 1);
  for (let v = 0; v <= found; v++) {
    semi[v] = label[v] = v;
    ancestor[v] = parent[v];
  }
  const isStart = new Uint8Array(found + 1);
  for (const start of starts) isStart[order[start]] = 1;
  const path = new Int32Array(found + 1);

  for (let v = found; v > 0; v--) {
    let least = isStart[v] ? 0 : parent[v];
    const page = pageAt[v];
    const stop = incoming.offsets[page + 1];
    for (let i = incoming.offsets[page]; i < stop && least > 0; i++) {
      const u = order[incoming.sources[i]];
      if (u === 0) continue;
      const from = u < v ? u : semi[evaluate(u, v)];
      if (from < least) least = from;
    }
    semi[v] = least;
  }

  const idom = parent;
  for (let v = 1; v <= found; v++) {
    let up = idom[v];
    while (up > semi[v]) up = idom[up];
    idom[v] = up;
  }
  const result = new Int32Array(count).fill(-1);
  for (let v = 1; v <= found; v++) if (idom[v] > 0) result[pageAt[v]] = pageAt[idom[v]];
  return result;

  /** The vertex of least semidominator on the way from `u` up to those not yet linked, which are numbered up to `v`. */
  function evaluate(u: number, v: number): number {
    let top = 0;
    let at = u;
    // Vertices above v have their semidominators by now; the way is shortened to the first of them whose parent has
    // not.
    while (ancestor[at] > v) {
      path[top++] = at;
      at = ancestor[at];
    }
    let best = label[at];
    let least = semi[best];
    const root = ancestor[at];
    while (top > 0) {
      at = path[--top];
      const own = label[at];
      if (semi[own] < least) {
        best = own;
        least = semi[own];
      } else label[at] = best;
      ancestor[at] = root;
    }
    return best;
  }

  /** Numbers what can be reached, and keeps the tree of the search. */
  function depthFirst(): number {
    const next = offsets.slice(0, count);
    const path = new Int32Array(count + 1);
    let numbered = 0;
    for (const start of starts) {
      if (order[start] !== 0) continue;
      let top = 0;
      path[0] = start;
      order[start] = ++numbered;
      pageAt[numbered] = start;
      parent[numbered] = 0;
      while (top >= 0) {
        const page = path[top];
        const stop = offsets[page + 1];
        let at = next[page];
        while (at < stop && order[targets[at]] !== 0) at++;
        next[page] = at + 1;
        if (at >= stop) {
          top--;
          continue;
        }
        const child = targets[at];
        order[child] = ++numbered;
        pageAt[numbered] = child;
        parent[numbered] = order[page];
        path[++top] = child;
      }
    }
    return numbered;
  }
}

/**
 * `gate_for`: how many reached pages lose every route when a page goes.
 * @param dominator as {@link dominators} gives it
 * @param depth −1 for pages without a route, whose gates are −1 (unknown)
 */
export function gatesOf(dominator: Int32Array, depth: Int32Array): Int32Array {
  const count = dominator.length;
  const children = new Int32Array(count);
  for (let page = 0; page < count; page++) if (dominator[page] >= 0) children[dominator[page]]++;
  const lost = new Int32Array(count);
  // From the leaves up: a page is done when all it stands before are.
  const ready = new Int32Array(count);
  let end = 0;
  for (let page = 0; page < count; page++) if (children[page] === 0) ready[end++] = page;
  for (let i = 0; i < end; i++) {
    const up = dominator[ready[i]];
    if (up < 0) continue;
    lost[up] += lost[ready[i]] + 1;
    if (--children[up] === 0) ready[end++] = up;
  }
  return lost.map((n, page) => (depth[page] < 0 ? -1 : n));
}
