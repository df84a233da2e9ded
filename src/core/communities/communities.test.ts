import fc from 'fast-check';
import { expect, it } from 'vitest';
import { communityNumbers, everywherePages } from '.';
import type { PageGraph } from '../reach';

const graphOf = (count: number, pairs: readonly (readonly [number, number])[]): PageGraph => {
  const rows = Array.from({ length: count }, () => new Set<number>());
  for (const [from, to] of pairs) if (from !== to) rows[from].add(to);
  const offsets = new Uint32Array(count + 1);
  rows.forEach((row, page) => (offsets[page + 1] = offsets[page] + row.size));
  const targets = Uint32Array.from(rows.flatMap((row) => [...row]));
  return { count, offsets, targets, hop: new Int32Array(count).fill(-1) };
};
/** All pages of a list link to each other. */
const clique = (pages: number[]) => pages.flatMap((a) => pages.map((b) => [a, b] as const));

/** Newman and Girvan, "Finding and evaluating community structure in networks" (2004), over pairs without direction. */
function modularity({ count, offsets, targets }: PageGraph, of: Int32Array): number {
  const degree = new Float64Array(count);
  let [within, all] = [0, 0];
  for (let page = 0; page < count; page++)
    for (const target of targets.subarray(offsets[page], offsets[page + 1])) {
      degree[page]++;
      degree[target]++;
      all += 2;
      if (of[page] === of[target]) within += 2;
    }
  const groups = new Map<number, number>();
  of.forEach((group, page) => groups.set(group, (groups.get(group) ?? 0) + degree[page]));
  return within / all - [...groups.values()].reduce((sum, one) => sum + (one / all) ** 2, 0);
}

it('finds two rings of pages that one link joins, the larger first', () => {
  const graph = graphOf(9, [...clique([0, 1, 2, 3]), ...clique([4, 5, 6, 7, 8]), [0, 4]]);
  expect([...communityNumbers(graph)]).toEqual([2, 2, 2, 2, 1, 1, 1, 1, 1]);
});

it('leaves pages alone that menus only lead to, and pages that are linked with none', () => {
  const pages = Array.from({ length: 60 }, (_, page) => page);
  const menu = pages.map((page) => [page, 0] as const);
  const graph = graphOf(60, [...menu, [1, 2], [2, 3]]);
  expect(everywherePages(graph)[0]).toBe(1);
  const numbers = communityNumbers(graph);
  expect([...numbers.subarray(0, 5)]).toEqual([-1, 1, 1, 1, -1]);
});

it('finds the same twice, and parts at least as good as all in one', () =>
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.nat(24), fc.nat(24)), { minLength: 1, maxLength: 120 }), (pairs) => {
      const graph = graphOf(25, pairs);
      const numbers = communityNumbers(graph);
      expect([...communityNumbers(graph)]).toEqual([...numbers]);
      const ownOf = numbers.map((number, page) => (number < 0 ? 100 + page : number));
      if (graph.targets.length > 0) expect(modularity(graph, ownOf)).toBeGreaterThanOrEqual(-1e-9);
    }),
  ));
