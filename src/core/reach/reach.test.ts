import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  CLICK,
  clickDepths as depthsOf,
  dominators,
  gatesOf,
  incomingPages,
  islandNumbers,
  NO_CLICK,
  NO_WAY,
  pageGraph,
  reachOf,
  routeTo,
  unreachedWithout,
} from '.';
import { reaches } from '../facts';
import { bySemidominators } from './gates';
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

const clickDepths = (graph: LinkGraph, starts: number[]) => depthsOf(pageGraph(graph), starts);
const route = (graph: LinkGraph, page: number, share: number[] = []) => {
  const share0 = Array.from({ length: graph.count }, (_, i) => share[i] ?? 0);
  return routeTo(clickDepths(graph, [0]), incomingPages(pageGraph(graph)), page, share0);
};

/** Relaxes every edge until nothing changes: slow, and plainly right. */
function slowDepths(count: number, edges: Edge[], start: number): number[] {
  const depth = new Array<number>(count).fill(Infinity);
  depth[start] = 0;
  for (let round = 0; round <= count; round++)
    for (const [from, to, cost = CLICK] of edges)
      if (to < count && cost !== NO_WAY) depth[to] = Math.min(depth[to], depth[from] + cost);
  return depth.map((d) => (d === Infinity ? -1 : d));
}

/** A page redirects to one page at the most; what else it is given is left out. */
const oneHop = (edges: Edge[]): Edge[] =>
  edges.filter(
    ([from, to, cost], i) =>
      cost !== NO_CLICK ||
      (to !== from && edges.findIndex((e) => e[0] === from && e[1] !== from && e[2] === NO_CLICK) === i),
  );

const graphs = fc
  .integer({ min: 1, max: 14 })
  .chain((count) =>
    fc.tuple(
      fc.constant(count),
      fc.array(fc.tuple(fc.nat(count - 1), fc.nat(count), fc.constantFrom(CLICK, CLICK, NO_CLICK, NO_WAY)), {
        maxLength: 50,
      }),
    ),
  )
  .map(
    ([count, edges]) =>
      [count, oneHop(edges.filter(([, to, cost]) => cost !== NO_CLICK || to < count))] as [number, Edge[]],
  );

describe('depth', () => {
  it('counts clicks, and none for a redirect', () => {
    // start → redirect → target → next
    const { depth } = clickDepths(
      graphOf(4, [
        [0, 1],
        [1, 2, NO_CLICK],
        [2, 3],
      ]),
      [0],
    );
    expect([...depth]).toEqual([0, 1, 1, 2]);
  });
  it('is no way along declared relations, and none from outside', () =>
    expect([
      ...clickDepths(
        graphOf(3, [
          [0, 1, NO_WAY],
          [0, 5],
        ]),
        [0],
      ).depth,
    ]).toEqual([0, -1, -1]));
  it('survives loops of redirects', () =>
    expect([
      ...clickDepths(
        graphOf(2, [
          [0, 1, NO_CLICK],
          [1, 0, NO_CLICK],
        ]),
        [0],
      ).depth,
    ]).toEqual([0, 0]));
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
        const graph = graphOf(count, edges);
        const depths = clickDepths(graph, [0]);
        for (let page = 0; page < count; page++) {
          const way = route(graph, page);
          if (depths.depth[page] < 0) {
            expect(way).toEqual([]);
            continue;
          }
          expect(way[0]).toBe(0);
          const clicks = way.slice(1).map((to, i) => {
            const ways = edges.filter(([f, t, c = CLICK]) => f === way[i] && t === to && c !== NO_WAY);
            expect(ways.length).toBeGreaterThan(0);
            return Math.min(...ways.map(([, , c = CLICK]) => c));
          });
          expect(clicks.reduce((a, b) => a + b, 0)).toBe(depths.depth[page]);
        }
      }),
    ));
  const diamond = graphOf(4, [
    [0, 2],
    [0, 1],
    [2, 3],
    [1, 3],
  ]);
  it('takes the page that comes first among equals', () => expect(route(diamond, 3)).toEqual([0, 1, 3]));
  it('takes the page with more share first of all', () => expect(route(diamond, 3, [0, 1, 2])).toEqual([0, 2, 3]));
});

it('tells orphans from islands', () => {
  // 0 → 1; 2 ↔ 3; 4 → 5; 6 links to itself only
  const graph = graphOf(7, [
    [0, 1],
    [2, 3],
    [3, 2],
    [4, 5],
    [6, 6],
  ]);
  const { depth } = clickDepths(graph, [0]);
  const pagesLinking = Int32Array.of(0, 1, 1, 1, 0, 1, 0);
  expect([...reachOf(depth, pagesLinking)].map((code) => reaches[code])).toEqual([
    'reached',
    'reached',
    'island',
    'island',
    'orphan',
    'island',
    'orphan',
  ]);
  expect([...islandNumbers(graph, depth)]).toEqual([-1, -1, 1, 1, 2, 2, -1]);
});
it('numbers islands from the largest', () => {
  const graph = graphOf(6, [
    [1, 2],
    [3, 4],
    [4, 5],
  ]);
  expect([...islandNumbers(graph, clickDepths(graph, [0]).depth)]).toEqual([-1, 2, 2, 1, 1, 1]);
});

describe('gates', () => {
  const gates = (graph: LinkGraph, starts = [0]) => {
    const pages = pageGraph(graph);
    const depths = depthsOf(pages, starts);
    return gatesOf(dominators(pages, incomingPages(pages), depths, starts), depths.depth);
  };
  it('are the only way to others', () => {
    // 0 → 1 → 2 → {3, 4} → 5, and 6 has no route
    const graph = graphOf(7, [
      [0, 1],
      [1, 2],
      [2, 3],
      [2, 4],
      [3, 5],
      [4, 5],
      [6, 5],
    ]);
    expect([...gates(graph)]).toEqual([5, 4, 3, 0, 0, 0, -1]);
  });
  it('are none where two start pages lead', () =>
    expect([
      ...gates(
        graphOf(3, [
          [0, 2],
          [1, 2],
        ]),
        [0, 1],
      ),
    ]).toEqual([0, 0, 0]));
  it('agree with taking the page away', () =>
    fc.assert(
      fc.property(graphs, fc.boolean(), ([count, edges], two) => {
        const starts = two && count > 1 ? [0, 1] : [0];
        const graph = graphOf(count, edges);
        const pages = pageGraph(graph);
        const depths = depthsOf(pages, starts);
        const lost = Array.from({ length: count }, (_, page) => {
          if (depths.depth[page] < 0) return -1;
          const left = graphOf(
            count,
            edges.filter(([from, to]) => from !== page && to !== page),
          );
          const without = clickDepths(
            left,
            starts.filter((start) => start !== page),
          ).depth;
          return depths.depth.filter((d, other) => d >= 0 && other !== page && without[other] < 0).length;
        });
        expect([...gates(graph, starts)]).toEqual(lost);
        // The way that is taken for deep graphs gives the same tree.
        const incoming = incomingPages(pages);
        expect(bySemidominators(pages, incoming, starts)).toEqual(dominators(pages, incoming, depths, starts));
      }),
    ));
});

it('finds what is lost when several pages go', () =>
  fc.assert(
    fc.property(graphs, fc.uniqueArray(fc.nat(13), { maxLength: 4 }), ([count, edges], gone) => {
      const pages = pageGraph(graphOf(count, edges));
      const bits = Uint32Array.of(gone.reduce((all, page) => all | (page < count ? 1 << page : 0), 0));
      const lost = unreachedWithout(pages, depthsOf(pages, [0]), bits)[0];
      const left = graphOf(
        count,
        edges.filter(([from, to]) => !gone.includes(from) && !gone.includes(to)),
      );
      const without = clickDepths(left, gone.includes(0) ? [] : [0]).depth;
      depthsOf(pages, [0]).depth.forEach(
        (depth, page) =>
          depth >= 0 && expect(((lost >>> page) & 1) === 1).toBe(without[page] < 0 || gone.includes(page)),
      );
    }),
  ));
