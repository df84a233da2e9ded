/**
 * Communities: pages that are linked with each other more than with others. Blondel, Guillaume, Lambiotte and Lefebvre,
 * "Fast unfolding of communities in large networks" (2008), without chance: nodes are moved in their order.
 */
import type { PageGraph } from '../reach';

/** A graph without directions in compressed sparse rows, each pair in both its rows. */
interface Weighted {
  count: number;
  offsets: Uint32Array;
  targets: Uint32Array;
  weights: Float64Array;
  /** By node twice the weight of what is within it. */
  within: Float64Array;
}

/** Menus lead to these from everywhere, which says nothing about what belongs together. */
const EVERYWHERE_PART = 0.1;
const LEAST_EVERYWHERE = 20;
const MOST_ROUNDS = 30;
const LEAST_GAIN = 1e-9;

/** For each page 1 when so many pages link to it that their links say nothing of them. */
export function everywherePages({ count, targets }: Pick<PageGraph, 'count' | 'targets'>): Uint8Array {
  const linking = new Uint32Array(count);
  for (const target of targets) linking[target]++;
  const most = Math.max(LEAST_EVERYWHERE, EVERYWHERE_PART * count);
  return Uint8Array.from(linking, (pages) => Number(pages > most));
}

/** The pairs of pages, each in the rows of both, without those that lead everywhere. */
function withoutDirection({ count, offsets, targets }: PageGraph): Weighted {
  const everywhere = everywherePages({ count, targets });
  const eachPair = (visit: (from: number, to: number) => void) => {
    for (let page = 0; page < count; page++)
      for (let at = offsets[page]; at < offsets[page + 1]; at++)
        if (everywhere[targets[at]] === 0) visit(page, targets[at]);
  };
  const rows = new Uint32Array(count + 1);
  eachPair((from, to) => {
    rows[from + 1]++;
    rows[to + 1]++;
  });
  for (let page = 0; page < count; page++) rows[page + 1] += rows[page];
  const next = rows.slice();
  const beside = new Uint32Array(rows[count]);
  eachPair((from, to) => {
    beside[next[from]++] = to;
    beside[next[to]++] = from;
  });
  const weights = new Float64Array(beside.length).fill(1);
  return { count, offsets: rows, targets: beside, weights, within: new Float64Array(count) };
}

/** Puts the nodes of a graph together by their groups. */
function merged(graph: Weighted, of: Int32Array, count: number): Weighted {
  const rows = Array.from({ length: count }, () => new Map<number, number>());
  const within = new Float64Array(count);
  for (let node = 0; node < graph.count; node++) {
    const own = of[node];
    within[own] += graph.within[node];
    for (let at = graph.offsets[node]; at < graph.offsets[node + 1]; at++) {
      const other = of[graph.targets[at]];
      if (other === own) within[own] += graph.weights[at];
      else rows[own].set(other, (rows[own].get(other) ?? 0) + graph.weights[at]);
    }
  }
  const offsets = new Uint32Array(count + 1);
  rows.forEach((row, node) => (offsets[node + 1] = offsets[node] + row.size));
  return {
    count,
    offsets,
    targets: Uint32Array.from(rows.flatMap((row) => [...row.keys()])),
    weights: Float64Array.from(rows.flatMap((row) => [...row.values()])),
    within,
  };
}

/** Moves nodes into the group of a neighbour as long as that raises modularity. @returns by node its group */
function moveNodes({ count, offsets, targets, weights, within }: Weighted): Int32Array {
  const of = Int32Array.from({ length: count }, (_, node) => node);
  const degree = Float64Array.from({ length: count }, (_, node) =>
    weights.subarray(offsets[node], offsets[node + 1]).reduce((sum, weight) => sum + weight, within[node]),
  );
  const total = degree.reduce((sum, one) => sum + one, 0);
  const all = degree.slice();
  const towards = new Float64Array(count);
  for (let round = 0, moved = true; moved && round < MOST_ROUNDS; round++) {
    moved = false;
    for (let node = 0; node < count; node++) {
      const own = of[node];
      const groups: number[] = [];
      for (let at = offsets[node]; at < offsets[node + 1]; at++) {
        const group = of[targets[at]];
        if (towards[group] === 0) groups.push(group);
        towards[group] += weights[at];
      }
      all[own] -= degree[node];
      const gain = (group: number) => towards[group] - (all[group] * degree[node]) / total;
      let best = own;
      for (const group of groups) if (gain(group) > gain(best) + LEAST_GAIN) best = group;
      all[best] += degree[node];
      for (const group of groups) towards[group] = 0;
      if (best === own) continue;
      of[node] = best;
      moved = true;
    }
  }
  return of;
}

/** Numbers groups from 0 in the order of their first nodes. @returns how many there are */
function renumber(of: Int32Array): number {
  const numbers = new Map<number, number>();
  of.forEach((group, node) => {
    if (!numbers.has(group)) numbers.set(group, numbers.size);
    of[node] = numbers.get(group)!;
  });
  return numbers.size;
}

/**
 * The community of each page.
 * @returns numbers from 1 in the order of size, equal ones in that of their first pages; −1 for pages that are linked
 *   with no others but by what leads everywhere
 */
export function communityNumbers(graph: PageGraph): Int32Array {
  const { count } = graph;
  let level = withoutDirection(graph);
  const of = Int32Array.from({ length: count }, (_, page) => page);
  for (let before = count + 1, groups = count; groups < before;) {
    before = groups;
    const moved = moveNodes(level);
    groups = renumber(moved);
    for (let page = 0; page < count; page++) of[page] = moved[of[page]];
    level = merged(level, moved, groups);
  }
  const sizes = new Uint32Array(level.count);
  for (const group of of) sizes[group]++;
  const order = [...sizes.keys()].filter((group) => sizes[group] > 1).sort((a, b) => sizes[b] - sizes[a] || a - b);
  const numbers = new Map(order.map((group, i) => [group, i + 1]));
  return of.map((group) => numbers.get(group) ?? -1);
}
