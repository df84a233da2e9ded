import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { CLICK, clickDepths, countLinks, islandNumbers, NO_CLICK, NO_WAY, reachOf, reaches, routeTo } from '.';
import type { LinkGraph } from '.';

type Edge = [from: number, to: number, cost?: number];

function graphOf(count: number, edges: Edge[]): LinkGraph {
  const sorted = [...edges].sort((a, b) => a[0] - b[0]);
  const offsets = new Uint32Array(count + 1);
  for (const [from] of sorted) offsets[from + 1]++;
  for (let i = 0; i < count; i++) offsets[i + 1] += offsets[i];
  return {
    count,
    offsets,
    targets: Uint32Array.from(sorted, ([, to]) => to),
    cost: Uint8Array.from(sorted, ([, , cost = CLICK]) => cost),
  };
}

/** Relaxes every edge until nothing changes: slow, and plainly right. */
function slowDepths(count: number, edges: Edge[], start: number): number[] {
  const depth = new Array<number>(count).fill(Infinity);
  depth[start] = 0;
  for (let round = 0; round <= count; round++)
    for (const [from, to, cost = CLICK] of edges)
      if (to < count && cost !== NO_WAY) depth[to] = Math.min(depth[to], depth[from] + cost);
  return depth.map((d) => (d === Infinity ? -1 : d));
}

const graphs = fc.integer({ min: 1, max: 14 }).chain((count) =>
  fc.tuple(
    fc.constant(count),
    fc.array(fc.tuple(fc.nat(count - 1), fc.nat(count), fc.constantFrom(CLICK, CLICK, NO_CLICK, NO_WAY)), {
      maxLength: 50,
    }),
  ),
);

describe('depth', () => {
  it('counts clicks, and none for a redirect', () => {
    // start → redirect → target → next
    const { depth } = clickDepths(graphOf(4, [[0, 1], [1, 2, NO_CLICK], [2, 3]]), [0]); // prettier-ignore
    expect([...depth]).toEqual([0, 1, 1, 2]);
  });
  it('is no way along declared relations, and none from outside', () =>
    expect([...clickDepths(graphOf(3, [[0, 1, NO_WAY], [0, 5]]), [0]).depth]).toEqual([0, -1, -1])); // prettier-ignore
  it('survives loops of redirects', () =>
    expect([...clickDepths(graphOf(2, [[0, 1, NO_CLICK], [1, 0, NO_CLICK]]), [0]).depth]).toEqual([0, 0])); // prettier-ignore
  it('equals a slow reference', () =>
    fc.assert(
      fc.property(graphs, ([count, edges]) => {
        expect([...clickDepths(graphOf(count, edges), [0]).depth]).toEqual(slowDepths(count, edges, 0));
      }),
    ));
  it('never grows when a link is added', () =>
    fc.assert(
      fc.property(graphs, fc.nat(13), fc.nat(13), ([count, edges], from, to) => {
        const before = clickDepths(graphOf(count, edges), [0]).depth;
        const after = clickDepths(graphOf(count, [...edges, [from % count, to % count]]), [0]).depth;
        before.forEach((d, page) => d >= 0 && expect(after[page]).toBeLessThanOrEqual(d));
      }),
    ));
});

describe('route', () => {
  it('is a way of links whose clicks add up to the depth', () =>
    fc.assert(
      fc.property(graphs, ([count, edges]) => {
        const depths = clickDepths(graphOf(count, edges), [0]);
        for (let page = 0; page < count; page++) {
          const route = routeTo(depths, page);
          if (depths.depth[page] < 0) {
            expect(route).toEqual([]);
            continue;
          }
          expect(route[0]).toBe(0);
          const clicks = route.slice(1).map((to, i) => {
            const ways = edges.filter(([f, t, c = CLICK]) => f === route[i] && t === to && c !== NO_WAY);
            expect(ways.length).toBeGreaterThan(0);
            return Math.min(...ways.map(([, , c = CLICK]) => c));
          });
          expect(clicks.reduce((a, b) => a + b, 0)).toBe(depths.depth[page]);
        }
      }),
    ));
  it('takes the page that comes first among equals', () =>
    expect(routeTo(clickDepths(graphOf(4, [[0, 2], [0, 1], [2, 3], [1, 3]]), [0]), 3)).toEqual([0, 1, 3])); // prettier-ignore
});

it('counts occurrences and pages, self-links apart', () => {
  const counts = countLinks(graphOf(3, [[0, 1], [0, 1], [0, 0], [2, 1], [0, 7], [0, 2, NO_CLICK]])); // prettier-ignore
  expect([...counts.linksIn]).toEqual([0, 3, 0]);
  expect([...counts.pagesLinking]).toEqual([0, 2, 0]);
  expect([...counts.linksOut]).toEqual([3, 0, 1]);
  expect([...counts.pagesLinked]).toEqual([1, 0, 1]);
  expect([...counts.externalLinks]).toEqual([1, 0, 0]);
});

it('tells orphans from islands', () => {
  // 0 → 1; 2 ↔ 3; 4 → 5; 6 links to itself only
  const graph = graphOf(7, [[0, 1], [2, 3], [3, 2], [4, 5], [6, 6]]); // prettier-ignore
  const { depth } = clickDepths(graph, [0]);
  const { pagesLinking } = countLinks(graph);
  expect([...reachOf(depth, pagesLinking)].map((code) => reaches[code])).toEqual(['reached', 'reached', 'island', 'island', 'orphan', 'island', 'orphan']); // prettier-ignore
  expect([...islandNumbers(graph, depth)]).toEqual([-1, -1, 1, 1, 2, 2, -1]);
});
it('numbers islands from the largest', () => {
  const graph = graphOf(6, [[1, 2], [3, 4], [4, 5]]); // prettier-ignore
  expect([...islandNumbers(graph, clickDepths(graph, [0]).depth)]).toEqual([-1, 2, 2, 1, 1, 1]);
});
