import { addTile, BLOCK_BITS, tilesOf } from './tiles';
import type { EdgeRows } from './tiles';

/** Part of a page's share that goes along its links; the rest is spread over all pages. */
export const DAMPING = 0.85;
const TOLERANCE = 1e-10;
const MAX_ROUNDS = 1000;
/** Two rounds whose changes shrink by parts no more different than this shrink evenly. */
const STEADY = 0.02;
/** Cosine of the angle between two changes that go the same way. Rings of pages turn them instead. */
const STRAIGHT = 0.995;

/** How the share of each node is passed on. */
export interface ShareGraph extends EdgeRows {
  /** What one unit of weight along an edge of a source carries; 0 when it passes nothing on. */
  perEdge: Float64Array;
  /** Part of a node's share that no edge takes: 1 at a dead end. It is spread evenly over all nodes. */
  kept: Float64Array;
}

/**
 * PageRank (Brin and Page, 1998), with uniform teleport and what is kept spread evenly over all nodes, to a change of
 * less than 1e-10 summed over all nodes. Each round uses what it has already found (Gauss and Seidel), which needs
 * about half the rounds, and ends by scaling all shares to a sum of 1.
 * @param blockBits how many nodes are a block, as a power of 2 (`tiles.ts`)
 * @returns probabilities, which sum to 1
 */
export function pageRank(graph: ShareGraph, blockBits = BLOCK_BITS): Float64Array {
  const { count, perEdge, kept } = graph;
  const tiles = tilesOf(graph, blockBits);
  const { blocks, begins, edges, weights } = tiles;
  const inBlock = 2 ** blockBits;
  /** What has come to the nodes of the block at hand. */
  const sums = new Float64Array(Math.min(count, inBlock));
  const share = new Float64Array(count).fill(1 / count);
  /** What each source sends along one unit of weight, so that the inner loop reads one array. */
  const sent = perEdge.map((part) => (DAMPING * part) / count);
  const spread = DAMPING / count;
  const teleport = (1 - DAMPING) / count;
  let idle = 0;
  for (let node = 0; node < count; node++) idle += kept[node] / count;
  let step = new Float64Array(count);
  let stepBefore = new Float64Array(count);
  let before = Infinity;
  let ratioBefore = 0;
  let lengthBefore = 0;
  /** The change at the last leap: there is no other before the changes are less than that. */
  let leapt = Infinity;
  let since = 0;
  for (let round = 0; round < MAX_ROUNDS; round++) {
    [step, stepBefore] = [stepBefore, step];
    let total = 0;
    for (let block = 0; block < blocks; block++) {
      sums.fill(0);
      for (let other = 0; other < blocks; other++) if (other !== block) addTile(tiles, block, other, sums, sent);
      // What comes from nodes of the same block is added last, as they are found.
      const first = block * inBlock;
      const end = Math.min(count, first + inBlock);
      const stop = begins[block * (blocks + 1) + 1];
      let i = begins[block * (blocks + 1)];
      for (let node = first; node < end; node++) {
        let sum = sums[node - first];
        for (; i < stop && edges[i] >>> 16 === node - first; i++) {
          const gift = sent[first + (edges[i] & 0xffff)];
          sum += weights ? gift * weights[i] : gift;
        }
        const value = sum + teleport + spread * idle;
        const own = share[node];
        step[node] = own;
        share[node] = value;
        sent[node] = DAMPING * perEdge[node] * value;
        idle += kept[node] * (value - own);
        total += value;
      }
    }
    // Without this, what the sum lacks of 1 shrinks by the damping factor only, and decides how many rounds it takes.
    const scale = 1 / total;
    idle *= scale;
    let change = 0;
    let length = 0;
    let along = 0;
    for (let node = 0; node < count; node++) {
      share[node] *= scale;
      sent[node] *= scale;
      const difference = share[node] - step[node];
      step[node] = difference;
      change += Math.abs(difference);
      length += difference * difference;
      along += difference * stepBefore[node];
    }
    if (change < TOLERANCE) break;
    const ratio = change / before;
    // Once the changes shrink evenly and go the same way, what is still to come is known (Aitken). Closed groups of
    // pages make it so.
    const straight = along > STRAIGHT * Math.sqrt(length * lengthBefore);
    if (++since > 3 && change < leapt && straight && ratio < 1 && Math.abs(ratio - ratioBefore) < STEADY) {
      for (let node = 0; node < count; node++) {
        const leap = (step[node] * ratio) / (1 - ratio);
        share[node] += leap;
        sent[node] = DAMPING * perEdge[node] * share[node];
        idle += kept[node] * leap;
      }
      since = 0;
      leapt = change;
    }
    before = change;
    ratioBefore = ratio;
    lengthBefore = length;
  }
  return share;
}
