import { orderByKey } from '../grouping';

/** Of what one round of share reads and writes, two blocks of so many nodes fit into a cache near the processor. */
export const BLOCK_BITS = 16;

/** EdgeRows in compressed sparse rows: those of node `i` are `offsets[i]` to `offsets[i + 1] − 1`. */
export interface EdgeRows {
  count: number;
  offsets: Uint32Array;
  targets: Uint32Array;
  /** Of each edge; 1 each when absent. */
  weights?: Float64Array;
}

/**
 * The edges of a graph by blocks of targets and of sources, a tile for each pair of blocks. Taken one by one in the
 * order of their targets, the sources of many millions of edges lie all over memory, and most of the time is spent on
 * waiting for it; the nodes of a tile lie near each other (Nishtala, Vuduc, Demmel and Yelick, "When cache blocking of
 * sparse matrix vector multiply works and why", 2007).
 */
export interface Tiles {
  blocks: number;
  /** How many bits number a node within its block. */
  bits: number;
  /** Where the edges of tile `block of targets × blocks + block of sources` begin, and the end of the last. */
  begins: Uint32Array;
  /**
   * Of each edge the place of its target in its block, in the upper 16 bits, and that of its source, in the lower 16.
   * In order of sources; those within one block in order of targets.
   */
  edges: Uint32Array;
  weights?: Float64Array;
}

/** Lays edges out by tiles. @param bits at most 16 */
export function tilesOf({ count, offsets, targets, weights }: EdgeRows, bits = BLOCK_BITS): Tiles {
  const blocks = Math.ceil(count / 2 ** bits);
  const within = 2 ** bits - 1;
  const begins = new Uint32Array(blocks * blocks + 1);
  for (let source = 0; source < count; source++) {
    const column = (source >>> bits) + 1;
    for (let i = offsets[source]; i < offsets[source + 1]; i++) begins[(targets[i] >>> bits) * blocks + column]++;
  }
  for (let tile = 0; tile < blocks * blocks; tile++) begins[tile + 1] += begins[tile];
  const next = begins.slice();
  const edges = new Uint32Array(offsets[count]);
  const placed = weights && new Float64Array(edges.length);
  for (let source = 0; source < count; source++) {
    const column = source >>> bits;
    for (let i = offsets[source]; i < offsets[source + 1]; i++) {
      const target = targets[i];
      const at = next[(target >>> bits) * blocks + column]++;
      edges[at] = ((target & within) << 16) | (source & within);
      if (placed) placed[at] = weights[i];
    }
  }
  for (let block = 0; block < blocks; block++) {
    const [from, to] = [begins[block * (blocks + 1)], begins[block * (blocks + 1) + 1]];
    const own = edges.subarray(from, to);
    const keys = own.map((edge) => edge >>> 16);
    if (placed) orderByKey(keys, placed.subarray(from, to), within + 1);
    orderByKey(keys, own, within + 1);
  }
  return { blocks, bits, begins, edges, weights: placed };
}

/**
 * Adds to each target of a tile what comes along its edges.
 * @param sums of the nodes of the block of targets
 * @param sent what each node of the graph sends along one unit of weight
 */
export function addTile(
  { blocks, bits, begins, edges, weights }: Tiles,
  targetBlock: number,
  sourceBlock: number,
  sums: Float64Array,
  sent: Float64Array,
): void {
  const first = sourceBlock << bits;
  const stop = begins[targetBlock * blocks + sourceBlock + 1];
  let i = begins[targetBlock * blocks + sourceBlock];
  if (weights) for (; i < stop; i++) sums[edges[i] >>> 16] += sent[first + (edges[i] & 0xffff)] * weights[i];
  else for (; i < stop; i++) sums[edges[i] >>> 16] += sent[first + (edges[i] & 0xffff)];
}
