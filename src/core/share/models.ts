/** The two models of share (docs/MEANINGS.md, "Share"): `site`, which knows what pages pass on, and textbook `plain`. */
import { incomingPages } from '../reach';
import type { Snapshot } from '../snapshot';
import { verdicts } from '../verdict';
import type { Verdict } from '../verdict';
import { DAMPING, pageRank } from './pagerank';
import { evenWeights, pairsOf } from './pairs';
import type { PlacementWeights } from './pairs';
import { settle } from './settle';

export const shareModels = ['site', 'plain'] as const;
export type ShareModel = (typeof shareModels)[number];

export interface Share {
  /** Probability × number of nodes: 1 is an even split. −1 for addresses that are no nodes; 0 where all is passed on. */
  share: Float64Array;
  /** How many addresses are nodes. */
  nodes: number;
  /** Share that one unit of weight carries from each page along one of its pairs. */
  perPair: Float64Array;
  /** Part of its share, by weight, that each page gives to links that pass nothing on. */
  withheld: Float64Array;
  /** Where what an address has ends: itself, another page, or −1 outside or nowhere. */
  settled: Int32Array;
}

/** Gathers edges between pages and works their share out over those that are nodes. */
function solve(
  count: number,
  isNode: Uint8Array,
  edges: { from: Uint32Array; to: Uint32Array; weight: Float64Array | null },
  total: Float64Array,
) {
  const nodeOf = new Int32Array(count).fill(-1);
  const pageAt: number[] = [];
  for (let page = 0; page < count; page++) if (isNode[page]) nodeOf[page] = pageAt.push(page) - 1;
  const nodes = pageAt.length;
  const { from, to, weight } = edges;
  const offsets = new Uint32Array(nodes + 1);
  for (let i = 0; i < from.length; i++) offsets[nodeOf[from[i]] + 1]++;
  for (let node = 0; node < nodes; node++) offsets[node + 1] += offsets[node];
  const incoming = incomingPages({ count: nodes, offsets, targets: Uint32Array.from(to, (page) => nodeOf[page]) });
  const perEdge = new Float64Array(nodes);
  const kept = new Float64Array(nodes).fill(1);
  for (let i = 0; i < from.length; i++) kept[nodeOf[from[i]]] -= (weight ? weight[i] : 1) / total[from[i]];
  for (let node = 0; node < nodes; node++) {
    if (total[pageAt[node]] > 0) perEdge[node] = 1 / total[pageAt[node]];
    // What rounding leaves is nothing.
    if (kept[node] < 1e-12) kept[node] = 0;
  }
  const rank = pageRank({ count: nodes, incoming, perEdge, kept, weights: weight ? weightsByTarget() : undefined });
  return { nodes, share: Float64Array.from(nodeOf, (node) => (node < 0 ? -1 : rank[node] * nodes)) };

  /** The weights in the order of `incoming.sources`, which is that of the edges for each target. */
  function weightsByTarget(): Float64Array {
    const next = incoming.offsets.slice(0, nodes);
    const sorted = new Float64Array(to.length);
    for (let i = 0; i < to.length; i++) sorted[next[nodeOf[to[i]]]++] = weight![i];
    return sorted;
  }
}

/** Edges as they are found, page by page. */
function edgeList(most: number, weighted: boolean) {
  const from = new Uint32Array(most);
  const to = new Uint32Array(most);
  const weight = weighted ? new Float64Array(most) : null;
  let end = 0;
  return {
    add: (source: number, target: number, units: number) => {
      from[end] = source;
      to[end] = target;
      if (weight) weight[end] = units;
      end++;
    },
    edges: () => ({ from: from.subarray(0, end), to: to.subarray(0, end), weight: weight && weight.subarray(0, end) }),
  };
}

/**
 * Share by the model `site`. Nodes are inside addresses with a click link to or from them. A redirecting or
 * canonicalised address is folded into the one where it ends. Of a page that may be indexed, each pair takes an equal
 * part, or one by its weight; the part of pairs without a followed link goes to nobody, and is spread evenly like all
 * share that has nowhere to go. Pages that may not be indexed keep what they get.
 */
export function siteShare(snapshot: Snapshot, weights: PlacementWeights = evenWeights): Share {
  const { count, columns } = snapshot;
  const verdict = columns.verdict as Int32Array;
  const passes = verdicts.map((name) => name === 'indexable');
  const settled = settle(snapshot);
  const folded = (page: number) => settled[page] >= 0 && settled[page] !== page;
  const pairs = pairsOf(snapshot, weights);
  const weighted = Object.values(weights).some((weight) => weight !== 1);
  const list = edgeList(snapshot.links.target.length, weighted);
  const isNode = new Uint8Array(count);
  const total = new Float64Array(count);
  const withheld = new Float64Array(count);
  for (let page = 0; page < count; page++) {
    if (folded(page)) continue;
    pairs.each(page, (target, weight, followed) => {
      const end = folded(target) ? settled[target] : target;
      if (end === page) return;
      isNode[page] = isNode[end] = 1;
      if (!passes[verdict[page]] || weight === 0) return;
      total[page] += weight;
      if (followed) list.add(page, end, weight);
      else withheld[page] += weight;
    });
  }
  const { share, nodes } = solve(count, isNode, list.edges(), total);
  for (let page = 0; page < count; page++) if (folded(page)) share[page] = 0;
  for (let page = 0; page < count; page++) if (total[page] > 0) withheld[page] /= total[page];
  return { share, nodes, perPair: perPairOf(share, total), withheld, settled };
}

/**
 * Share by the model `plain`: textbook PageRank over the distinct click-link pairs between inside pages that answered
 * 200 with HTML, self-links dropped, nothing folded, nofollow not regarded.
 */
export function plainShare(snapshot: Snapshot): Share {
  const { count, columns } = snapshot;
  const status = columns.status as Int32Array;
  // What a page links to is known of HTML only.
  const linksOut = columns.links_out as Int32Array;
  const isNode = Uint8Array.from(status, (code, page) => Number(code === 200 && linksOut[page] >= 0));
  const pairs = pairsOf(snapshot, evenWeights);
  const list = edgeList(snapshot.links.target.length, false);
  const total = new Float64Array(count);
  for (let page = 0; page < count; page++) {
    if (!isNode[page]) continue;
    pairs.each(page, (target) => {
      if (!isNode[target]) return;
      total[page]++;
      list.add(page, target, 1);
    });
  }
  const { share, nodes } = solve(count, isNode, list.edges(), total);
  const settled = Int32Array.from({ length: count }, (_, page) => page);
  return { share, nodes, perPair: perPairOf(share, total), withheld: new Float64Array(count), settled };
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
export function leaksOf({ columns }: Snapshot, { share, nodes, withheld }: Share): Leak[] {
  const leaks = new Map<LeakCause, Leak>();
  const verdict = columns.verdict as Int32Array;
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
