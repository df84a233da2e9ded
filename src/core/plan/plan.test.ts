import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chance } from '../numbers';
import { clickDepths, incomingPages } from '../reach';
import type { PageGraph } from '../reach';
import { planLinks } from '.';
import type { PlanLimits } from '.';

type Pair = readonly [from: number, to: number];

function graphOf(count: number, pairs: readonly Pair[]): PageGraph {
  const distinct = [...new Set(pairs.filter(([a, b]) => a !== b).map(([a, b]) => a * count + b))].sort((a, b) => a - b);
  const offsets = new Uint32Array(count + 1);
  for (const pair of distinct) offsets[Math.floor(pair / count) + 1]++;
  for (let page = 0; page < count; page++) offsets[page + 1] += offsets[page];
  const targets = Uint32Array.from(distinct, (pair) => pair % count);
  return { count, offsets, targets, hop: new Int32Array(count).fill(-1) };
}

const depthsOf = (graph: PageGraph) => clickDepths(graph, [0]).depth;
const tooDeep = (depth: Int32Array, within: number) => depth.filter((clicks) => clicks < 0 || clicks > within).length;
const all = (count: number) => new Uint8Array(count).fill(1);
const limitsOf = (count: number, given: Partial<PlanLimits> = {}): PlanLimits => ({
  sources: all(count),
  targets: all(count),
  newLinks: Infinity,
  budget: Infinity,
  groups: null,
  allowed: null,
  ...given,
});

function plan(count: number, pairs: readonly Pair[], within: number, given?: Partial<PlanLimits>) {
  const graph = graphOf(count, pairs);
  const site = { graph, pages: incomingPages(graph), depth: depthsOf(graph), likeness: () => 0 };
  return planLinks(site, { within, wanted: all(count) }, limitsOf(count, given));
}
const withLinks = (count: number, pairs: readonly Pair[], links: readonly { source: number; target: number }[]) =>
  depthsOf(graphOf(count, [...pairs, ...links.map(({ source, target }) => [source, target] as const)]));

/** A chain of pages, each linked from the one before. */
const chain = (count: number): Pair[] => Array.from({ length: count - 1 }, (_, i) => [i, i + 1]);

/** The fewest links that any plan needs, by trying all. */
function fewestOf(count: number, pairs: readonly Pair[], within: number, newLinks: number): number {
  const possible: { source: number; target: number }[] = [];
  for (let source = 0; source < count; source++)
    for (let target = 1; target < count; target++) if (source !== target) possible.push({ source, target });
  const fits = (chosen: typeof possible) =>
    chosen.every(({ source }) => chosen.filter((one) => one.source === source).length <= newLinks) &&
    tooDeep(withLinks(count, pairs, chosen), within) === 0;
  const tryAll = (chosen: typeof possible, from: number, left: number): boolean => {
    if (left === 0) return fits(chosen);
    for (let i = from; i <= possible.length - left; i++)
      if (tryAll([...chosen, possible[i]], i + 1, left - 1)) return true;
    return false;
  };
  for (let links = 0; ; links++) if (tryAll([], 0, links)) return links;
}

describe('a plan', () => {
  it('of a site that is near enough is empty', () =>
    expect(plan(3, chain(3), 2)).toEqual({ links: [], tooDeep: 0, missed: 0, fewest: 0 }));
  it('takes the link that brings most first', () => {
    // 0 → 1 → … → 9: a link to page 5 brings pages 5 to 7 within three clicks, and so on.
    const { links, tooDeep, missed, fewest } = plan(10, chain(10), 3);
    expect([links.length, tooDeep, missed, fewest]).toEqual([2, 6, 0, 2]);
    expect(links.map(({ gain }) => gain)).toEqual([3, 3]);
  });
  it('brings pages that nothing links to', () => {
    const pairs: Pair[] = [
      [0, 1],
      [2, 3],
      [3, 4],
    ];
    expect(plan(5, pairs, 3).links.map(({ target }) => target)).toEqual([2]);
  });
  it('gives every page a route, however long, where no clicks are named', () => {
    const pairs: Pair[] = [...chain(6), [7, 6], [6, 8], [9, 7]];
    const { links, missed, fewest } = plan(10, pairs, 10);
    expect([links.map(({ target }) => target), missed, fewest]).toEqual([[9], 0, 1]);
  });
  it('keeps to how many new links a page may get', () => {
    const { links, missed } = plan(7, [], 2, { newLinks: 2 });
    expect(missed).toBe(0);
    expect(links).toHaveLength(6);
    for (let page = 0; page < 7; page++) expect(links.filter(({ source }) => source === page).length).toBeLessThan(3);
    expect(tooDeep(withLinks(7, [], links), 2)).toBe(0);
  });
  it('links only within groups where it is told to', () => {
    const groups = [0, 1, 0, 1];
    const { links, missed } = plan(4, [[0, 1]], 3, { groups });
    expect(missed).toBe(0);
    for (const { source, target } of links) expect(groups[source]).toBe(groups[target]);
  });
  it('ends with its budget, and says what is missed', () => {
    const { links, missed } = plan(10, chain(10), 3, { budget: 1 });
    expect([links.length, missed]).toEqual([1, 3]);
  });
  it('says what no link can bring', () =>
    expect(plan(3, [], 1, { newLinks: 1 })).toMatchObject({ tooDeep: 2, missed: 1 }));
  it('takes the source that is most like the target, where that brings as much', () => {
    const graph = graphOf(5, [
      [0, 1],
      [0, 2],
      [2, 0],
    ]);
    const site = {
      graph,
      pages: incomingPages(graph),
      depth: depthsOf(graph),
      likeness: (source: number, target: number) => Number(source === 2 && target === 4),
    };
    const { links } = planLinks(site, { within: 3, wanted: all(5) }, limitsOf(5));
    expect(links.find(({ target }) => target === 4)?.source).toBe(2);
  });
});

describe('on random sites, a plan', () => {
  const graph = fc.integer({ min: 4, max: 40 }).chain((count) =>
    fc.record({
      count: fc.constant(count),
      pairs: fc.array(fc.tuple(fc.nat(count - 1), fc.nat(count - 1)), { maxLength: 2 * count }),
      within: fc.integer({ min: 1, max: 4 }),
      newLinks: fc.constantFrom(1, 2, 5, Infinity),
    }),
  );
  it('does what it says', () =>
    fc.assert(
      fc.property(graph, ({ count, pairs, within, newLinks }) => {
        const before = depthsOf(graphOf(count, pairs));
        const made = plan(count, pairs, within, { newLinks });
        expect(made.tooDeep).toBe(tooDeep(before, within));
        expect(tooDeep(withLinks(count, pairs, made.links), within)).toBe(made.missed);
        expect(made.links.reduce((sum, { gain }) => sum + gain, 0)).toBe(made.tooDeep - made.missed);
        expect(made.fewest).toBeLessThanOrEqual(made.links.length);
        for (let page = 0; page < count; page++)
          expect(made.links.filter(({ source }) => source === page).length).toBeLessThanOrEqual(newLinks);
        if (newLinks === Infinity) expect(made.missed).toBe(0);
      }),
    ));
  it('has hardly more links than the best one', () => {
    const next = chance(5);
    let [ours, best] = [0, 0];
    for (let round = 0; round < 40; round++) {
      const count = 4 + next(3);
      const pairs = Array.from({ length: next(2 * count) }, () => [next(count), next(count)] as const);
      const [within, newLinks] = [1 + next(3), next(2) ? Infinity : 2];
      const made = plan(count, pairs, within, { newLinks });
      const fewest = made.missed ? 0 : fewestOf(count, pairs, within, newLinks);
      if (made.missed) continue;
      expect(made.fewest).toBeLessThanOrEqual(fewest);
      ours += made.links.length;
      best += fewest;
    }
    expect(ours / best).toBeLessThan(1.05);
  });
});
