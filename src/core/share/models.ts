/**
 * The two models of share (docs/MEANINGS.md, "Share"): `site`, which knows what pages pass on, and textbook `plain`.
 */
import { INDEXABLE, verdicts } from '../facts';
import type { Verdict } from '../facts';
import type { ColumnReader, Snapshot } from '../snapshot';
import { DAMPING, pageRank } from './pagerank';
import { evenWeights, pairsOf } from './pairs';
import type { PairBase, PlacementWeights } from './pairs';
import { findFinalTargets } from './targets';
import type { TargetBase } from './targets';

export const shareModels = ['site', 'plain'] as const;
export type ShareModel = (typeof shareModels)[number];

export interface Share {
  /**
   * Probability × number of nodes: 1 is an even split. −1 for addresses that are no nodes; 0 where all is passed on.
   */
  share: Float64Array;
  /** How many addresses are nodes. */
  nodes: number;
  /** Share that one unit of weight carries from each page along one of its pairs. */
  perPair: Float64Array;
  /** Part of its share, by weight, that each page gives to links that pass nothing on. */
  withheld: Float64Array;
  /** Where what an address has ends: itself, another page, or −1 outside or nowhere. */
  finalTargets: Int32Array;
}

/** What the model `site` is made of. */
export type ShareBase = PairBase & TargetBase;

/** What passes share on, in compressed sparse rows: the edges of page `i` are `offsets[i]` to `offsets[i + 1] − 1`. */
interface Edges {
  isNode: Uint8Array;
  /** Weight of all pairs of a page, and of those that pass nothing on. */
  total: Float64Array;
  withheld: Float64Array;
  offsets: Uint32Array;
  targets: Uint32Array;
  /** Absent when all edges weigh 1. */
  weights?: Float64Array;
}

/** Works the share of pages that are nodes out. */
function solve(count: number, { isNode, total, withheld, offsets, targets, weights }: Edges) {
  const nodeOf = new Int32Array(count).fill(-1);
  const pageAt: number[] = [];
  for (let page = 0; page < count; page++) if (isNode[page]) nodeOf[page] = pageAt.push(page) - 1;
  const nodes = pageAt.length;
  // Only nodes have edges.
  const begins = new Uint32Array(nodes + 1).map((_, node) => offsets[node < nodes ? pageAt[node] : count]);
  const ends = targets.subarray(0, offsets[count]);
  if (nodes < count) for (let i = 0; i < ends.length; i++) ends[i] = nodeOf[ends[i]];
  const perEdge = new Float64Array(pageAt).map((page) => (total[page] > 0 ? 1 / total[page] : 0));
  const kept = new Float64Array(pageAt).map((page) => (total[page] > 0 ? withheld[page] / total[page] : 1));
  const rank = pageRank({ count: nodes, offsets: begins, targets: ends, weights, perEdge, kept });
  return { nodes, share: new Float64Array(nodeOf).map((node) => (node < 0 ? -1 : rank[node] * nodes)) };
}

/** What an address is to share, in bits: it has links or is linked to; what it has goes to another. */
const NODE = 1;
const FOLDED = 2;

/** The pairs that carry share by the model `site`, and what they add up to. */
function siteEdges(snapshot: ShareBase, finalTargets: Int32Array, placed: PlacementWeights): Edges {
  const { count, column, links } = snapshot;
  const verdict = column('verdict');
  const pairs = pairsOf(snapshot, placed);
  // In one byte, as targets lie all over memory.
  const marks = new Uint8Array(count).map((_, page) =>
    finalTargets[page] >= 0 && finalTargets[page] !== page ? FOLDED : 0,
  );
  const total = new Float64Array(count);
  const withheld = new Float64Array(count);
  const offsets = new Uint32Array(count + 1);
  const targets = new Uint32Array(links.target.length);
  const isWeighted = Object.values(placed).some((weight) => weight !== 1);
  const weights = isWeighted ? new Float64Array(links.target.length) : undefined;
  let edges = 0;
  for (let page = 0; page < count; page++) {
    // What an address that is folded links to does not count.
    const found = marks[page] & FOLDED ? 0 : pairs.lookAt(page);
    const passes = verdict[page] === INDEXABLE;
    for (let i = 0; i < found; i++) {
      const target = pairs.targets[i];
      const end = marks[target] & FOLDED ? finalTargets[target] : target;
      if (end === page) continue;
      marks[page] |= NODE;
      marks[end] |= NODE;
      const weight = pairs.weights[i];
      if (!passes || weight === 0) continue;
      total[page] += weight;
      if (!pairs.followed[i]) withheld[page] += weight;
      else {
        if (weights) weights[edges] = weight;
        targets[edges++] = end;
      }
    }
    offsets[page + 1] = edges;
  }
  return { isNode: marks.map((mark) => mark & NODE), total, withheld, offsets, targets, weights };
}

/** What share of the model `site` does, beside how much each page has. */
function withFlows(share: Float64Array, nodes: number, finalTargets: Int32Array, { total, withheld }: Edges): Share {
  return {
    share,
    nodes,
    perPair: perPairOf(share, total),
    withheld: withheld.map((part, page) => (total[page] > 0 ? part / total[page] : 0)),
    finalTargets,
  };
}

/**
 * Share by the model `site`. Nodes are inside addresses with a click link to or from them. A redirecting or
 * canonicalised address is folded into the one where it ends. Of a page that may be indexed, each pair takes an equal
 * part, or one by its weight; the part of pairs without a followed link goes to nobody, and is spread evenly like all
 * share that has nowhere to go. Pages that may not be indexed keep what they get.
 */
export function siteShare(
  snapshot: ShareBase,
  weights: PlacementWeights = evenWeights,
  finalTargets: Int32Array = findFinalTargets(snapshot),
): Share {
  const edges = siteEdges(snapshot, finalTargets, weights);
  const { share, nodes } = solve(snapshot.count, edges);
  for (let page = 0; page < snapshot.count; page++)
    if (finalTargets[page] >= 0 && finalTargets[page] !== page) share[page] = 0;
  return withFlows(share, nodes, finalTargets, edges);
}

/** As {@link siteShare}, of a snapshot whose column `share` is known: nothing is worked out again that it tells. */
export function knownShare(snapshot: Snapshot, weights: PlacementWeights = evenWeights): Share {
  const finalTargets = findFinalTargets(snapshot);
  const edges = siteEdges(snapshot, finalTargets, weights);
  const nodes = edges.isNode.reduce((sum, one) => sum + one, 0);
  return withFlows(snapshot.column('share'), nodes, finalTargets, edges);
}

/**
 * Share by the model `plain`: textbook PageRank over the distinct click-link pairs between inside pages that answered
 * 200 with HTML, self-links dropped, nothing folded, nofollow not regarded.
 */
export function plainShare(snapshot: PairBase & { column: ColumnReader<'status' | 'html'> }): Share {
  const { count, column } = snapshot;
  const isNode = new Uint8Array(count).map((_, page) =>
    Number(column('status')[page] === 200 && column('html')[page] === 1),
  );
  const pairs = pairsOf(snapshot, evenWeights);
  const total = new Float64Array(count);
  const offsets = new Uint32Array(count + 1);
  const targets = new Uint32Array(snapshot.links.target.length);
  let end = 0;
  for (let page = 0; page < count; page++) {
    const found = isNode[page] ? pairs.lookAt(page) : 0;
    for (let i = 0; i < found; i++) if (isNode[pairs.targets[i]]) targets[end++] = pairs.targets[i];
    offsets[page + 1] = end;
    total[page] = end - offsets[page];
  }
  const edges: Edges = { isNode, total, withheld: new Float64Array(count), offsets, targets };
  const { share, nodes } = solve(count, edges);
  const finalTargets = new Int32Array(count).map((_, page) => page);
  return { share, nodes, perPair: perPairOf(share, total), withheld: new Float64Array(count), finalTargets };
}

const perPairOf = (share: Float64Array, total: Float64Array) =>
  share.map((own, page) => (own > 0 && total[page] > 0 ? (DAMPING * own) / total[page] : 0));

/** Why share ends where nothing can be indexed: the verdict of the address it ends at, or a nofollow. */
export type LeakCause = Exclude<Verdict, 'indexable'> | 'nofollow';

export interface Leak {
  cause: LeakCause;
  /** Part of all share of the site, 0 to 1. */
  part: number;
  /** Addresses where it ends, or pages whose links withhold it. */
  pages: number;
}

/**
 * Where share leaks, most first: what ends at addresses that may not be indexed (a redirect or canonical is among them
 * when it leads outside or nowhere), and what links without follow withhold.
 */
export function leaksOf({ column }: Snapshot, { share, nodes, withheld }: Share): Leak[] {
  const leaks = new Map<LeakCause, Leak>();
  const verdict = column('verdict');
  const add = (cause: LeakCause, amount: number) => {
    let leak = leaks.get(cause);
    if (!leak) leaks.set(cause, (leak = { cause, part: 0, pages: 0 }));
    leak.part += amount / nodes;
    leak.pages++;
  };
  share.forEach((own, page) => {
    if (own <= 0) return;
    const name = verdicts[verdict[page]];
    if (name !== 'indexable') add(name, own);
    if (withheld[page] > 0) add('nofollow', own * withheld[page] * DAMPING);
  });
  return [...leaks.values()].sort((a, b) => b.part - a.part);
}
