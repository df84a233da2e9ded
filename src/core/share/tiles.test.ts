import fc from 'fast-check';
import { expect, it } from 'vitest';
import { addTile, tilesOf } from './tiles';

/** The targets of each node, and what its edges weigh. */
const graphs = fc.integer({ min: 1, max: 40 }).chain((count) =>
  fc.array(fc.array(fc.tuple(fc.nat(count - 1), fc.integer({ min: 1, max: 9 })), { maxLength: 8 }), {
    minLength: count,
    maxLength: count,
  }),
);

it('brings along the edges of all tiles what comes along those of the graph, with and without weights', () =>
  fc.assert(
    fc.property(graphs, fc.integer({ min: 1, max: 16 }), fc.boolean(), (out, bits, isWeighted) => {
      const count = out.length;
      const offsets = Uint32Array.from([0, ...out.map((_, node) => out.slice(0, node + 1).flat().length)]);
      const targets = Uint32Array.from(out.flat(), ([target]) => target);
      const weights = isWeighted ? Float64Array.from(out.flat(), ([, weight]) => weight) : undefined;
      const sent = Float64Array.from(out, (_, node) => node + 1);

      const expected = new Float64Array(count);
      out.forEach((edges, node) =>
        edges.forEach(([target, weight]) => (expected[target] += sent[node] * (isWeighted ? weight : 1))),
      );

      const tiles = tilesOf({ count, offsets, targets, weights }, bits);
      const found = new Float64Array(tiles.blocks * 2 ** bits);
      for (let block = 0; block < tiles.blocks; block++) {
        const sums = found.subarray(block * 2 ** bits, (block + 1) * 2 ** bits);
        for (let other = 0; other < tiles.blocks; other++) addTile(tiles, block, other, sums, sent);
      }
      expect(found.slice(0, count)).toEqual(expected);
    }),
  ));

it('has the edges within a block in the order of their targets', () => {
  const targets = Uint32Array.from([3, 1, 2, 0, 1, 3, 0]);
  const { begins, edges, blocks } = tilesOf({ count: 4, offsets: Uint32Array.from([0, 3, 5, 6, 7]), targets }, 1);
  expect(blocks).toBe(2);
  const within = (block: number) => [...edges.subarray(begins[3 * block], begins[3 * block + 1])];
  expect(within(0)).toEqual([0x0000_0001, 0x0001_0000, 0x0001_0001]);
  expect(within(1)).toEqual([0x0001_0000]);
});
