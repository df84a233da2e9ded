import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { walkOf } from '../reach';
import { pageOf } from '../snapshot';
import type { Snapshot } from '../snapshot';
import { tiny, tinySite } from '../testing/tinySite';
import { overView } from '../view';
import type { TinyPage } from '../testing/tinySite';
import {
  DAMPING,
  evenWeights,
  leaksOf,
  pageRank,
  plainShare,
  sectionFlow,
  findFinalTargets,
  shareAround,
  siteShare,
} from '.';
import type { Share } from '.';

/** Power iteration on a full matrix: slow, and plainly right. */
function slowRank(count: number, out: number[][]): number[] {
  let rank = new Array<number>(count).fill(1 / count);
  for (let round = 0; round < 400; round++) {
    const idle = rank.reduce((sum, own, node) => sum + (out[node].length ? 0 : own), 0);
    const next = new Array<number>(count).fill((1 - DAMPING + DAMPING * idle) / count);
    out.forEach((targets, node) => targets.forEach((to) => (next[to] += (DAMPING * rank[node]) / targets.length)));
    rank = next;
  }
  return rank;
}

const graphs = fc
  .integer({ min: 1, max: 12 })
  .chain((count) =>
    fc.array(fc.uniqueArray(fc.nat(count - 1), { maxLength: 5 }), { minLength: count, maxLength: count }),
  );

function rankOf(out: number[][], blockBits?: number): Float64Array {
  const count = out.length;
  const offsets = Uint32Array.from([0, ...out.map((_, i) => out.slice(0, i + 1).flat().length)]);
  const perEdge = Float64Array.from(out, (targets) => (targets.length ? 1 / targets.length : 0));
  const kept = Float64Array.from(out, (targets) => Number(targets.length === 0));
  return pageRank({ count, offsets, targets: Uint32Array.from(out.flat()), perEdge, kept }, blockBits);
}

describe('PageRank', () => {
  it('equals a slow reference, and sums to 1', () =>
    fc.assert(
      fc.property(graphs, fc.integer({ min: 1, max: 16 }), (out, blockBits) => {
        const rank = rankOf(out, blockBits);
        expect(rank.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 12);
        slowRank(out.length, out).forEach((wanted, node) => expect(Math.abs(rank[node] - wanted)).toBeLessThan(1e-9));
      }),
    ));
  it.each([
    ['a ring of three', [[], [3], [1], [2], [1], [], [], [], [5], []]],
    ['rings of two, three and five', [[1], [2], [0, 3], [4], [3, 0], [6], [7], [8], [9], [5, 0]]],
    ['a ring and a chain into it', [[1], [2], [0], [0], [3], [4], [5], [6]]],
  ])('settles on %s, which turns the changes', (_, out) =>
    slowRank(out.length, out).forEach((wanted, node) => expect(rankOf(out)[node]).toBeCloseTo(wanted, 9)),
  );
  it('comes to an end on closed groups, which converge slowest', () => {
    const pair = [[1], [0], [3], [2], [0, 2]];
    slowRank(5, pair).forEach((wanted, node) => expect(rankOf(pair)[node]).toBeCloseTo(wanted, 9));
  });
});

const shareAt = (pages: Record<string, TinyPage>, model: (snapshot: Snapshot) => Share = siteShare) => {
  const snapshot = tinySite(pages);
  const share = model(snapshot);
  return { snapshot, share, at: (path: string) => share.share[pageOf(snapshot, tiny(path))] };
};

describe('the model plain', () => {
  it('is even on a ring, and takes in only pages that answered', () => {
    const { at, share } = shareAt(
      {
        '/': { links: ['/a', '/a', '/', '/gone'] },
        '/a': { links: ['/'], noindex: true },
        '/gone': { status: 404, html: false },
      },
      plainShare,
    );
    expect([at('/'), at('/a'), at('/gone'), share.nodes]).toEqual([expect.closeTo(1, 9), expect.closeTo(1, 9), -1, 2]);
  });
});

describe('the model site', () => {
  it('sums to the number of nodes, whatever leaks', () => {
    const { share } = shareAt({
      '/': { links: ['/a', '/b', '/old', '/shut'] },
      '/a': { links: ['/'], pageNofollow: true },
      '/b': { links: ['/a'], noindex: true },
      '/old': { status: 301, html: false, redirectTo: '/new' },
      '/new': {},
      '/shut': { robotsRule: { line: 2, directive: 'disallow', path: '/shut', group: '*' }, status: null, html: false },
    });
    const sum = share.share.reduce((total, own) => total + Math.max(0, own), 0);
    expect(sum).toBeCloseTo(share.nodes, 9);
  });
  it('passes all that a redirected or canonicalised address has to where it ends', () => {
    const direct = shareAt({ '/': { links: ['/new'] }, '/new': { links: ['/'] } });
    const folded = shareAt({
      '/': { links: ['/old'] },
      '/old': { status: 301, html: false, redirectTo: '/older' },
      '/older': { canonical: '/new', declared: [['canonical', '/new']], links: ['/', '/old'] },
      '/new': { links: ['/'] },
    });
    expect(folded.at('/new')).toBeCloseTo(direct.at('/new'), 9);
    expect([folded.at('/old'), folded.at('/older')]).toEqual([0, 0]);
    expect(folded.share.nodes).toBe(2);
  });
  it('gives the part of a nofollow link to nobody, and says so', () => {
    const { snapshot, share, at } = shareAt({ '/': { links: ['/a'], pageNofollow: true }, '/a': { links: ['/'] } });
    // All that the start has is spread evenly.
    expect(at('/')).toBeGreaterThan(at('/a'));
    expect(leaksOf(snapshot, share)).toEqual([
      { cause: 'nofollow', part: expect.closeTo((DAMPING * at('/')) / 2, 9) as number, pages: 1 },
    ]);
  });
  it('names what keeps share that can never be of use', () => {
    const { snapshot, share, at } = shareAt({
      '/': { links: ['/a', '/gone', '/out'] },
      '/a': {},
      '/gone': { status: 404, html: false },
      '/out': { status: 302, html: false, redirectTo: 'https://other.example/' },
    });
    const leaks = leaksOf(snapshot, share);
    expect(leaks.map(({ cause }) => cause).sort()).toEqual(['broken', 'redirect']);
    expect(leaks[0].part).toBeCloseTo(at('/gone') / 4, 9);
  });
  it('says what each link carries: all that flows, but for what is spread evenly', () => {
    const { snapshot, share, at } = shareAt({
      '/': { links: ['/a', '/old'] },
      '/a': { links: ['/'] },
      '/old': { status: 301, html: false, redirectTo: '/b' },
      '/b': { links: ['/', '/a'] },
    });
    const page = (path: string) => pageOf(snapshot, tiny(path));
    const own = overView(snapshot, { columns: { share: () => share.share } });
    const around = (path: string) => shareAround(own, page(path), walkOf(own).pages, findFinalTargets(own));
    expect(
      around('/')
        .to.map(({ page }) => page)
        .sort(),
    ).toEqual([page('/a'), page('/b')].sort());
    expect(around('/b').from).toEqual([
      { page: page('/'), by: page('/old'), share: expect.closeTo(around('/').to[0].share, 9) as number },
    ]);
    const into = (path: string) => around(path).from.reduce((sum, { share }) => sum + share, 0);
    for (const path of ['/', '/a', '/b']) expect(at(path)).toBeCloseTo(into(path) + 1 - DAMPING, 9);
  });
  it('has no share for addresses that no link touches', () =>
    expect(shareAt({ '/': { links: ['/a'] }, '/a': {}, '/lost': {} }).at('/lost')).toBe(-1));
  it('weighs links by where they stand', () => {
    const pages = {
      '/': { links: ['/main'], worded: [['/foot', 'Imprint', 'footer']] as [string, string, 'footer'][] },
      '/main': {},
      '/foot': {},
    };
    const snapshot = tinySite(pages);
    const { share } = siteShare(snapshot, { ...evenWeights, footer: 0.5 });
    const given = (path: string) => share[pageOf(snapshot, tiny(path))] - share[pageOf(snapshot, tiny('/'))];
    expect(given('/main')).toBeCloseTo(2 * given('/foot'), 9);
    // What weighs nothing carries nothing, also where a page has no other links.
    const without = siteShare(tinySite({ ...pages, '/main': { worded: [['/foot', 'Imprint', 'footer']] } }), {
      ...evenWeights,
      footer: 0,
    });
    expect(without.share.reduce((sum, own) => sum + own, 0)).toBeCloseTo(3, 9);
    expect(without.share[pageOf(snapshot, tiny('/foot'))]).toBeCloseTo(without.share[pageOf(snapshot, tiny('/'))], 9);
  });
});

it('settles redirects and canonicals, and finds loops', () => {
  const snapshot = tinySite({
    '/a': { status: 301, html: false, redirectTo: '/b' },
    '/b': { canonical: '/c' },
    '/c': {},
    '/x': { status: 301, html: false, redirectTo: '/y' },
    '/y': { canonical: '/x' },
    '/to-x': { canonical: '/x' },
    '/out': { canonical: 'https://other.example/' },
  });
  const finalTargets = findFinalTargets(snapshot);
  const end = (path: string) => finalTargets[pageOf(snapshot, tiny(path))];
  expect([end('/a'), end('/b'), end('/c')]).toEqual(new Array(3).fill(pageOf(snapshot, tiny('/c'))));
  expect([end('/x'), end('/y'), end('/to-x'), end('/out')]).toEqual([-1, -1, -1, -1]);
});

it('counts links and share from section to section', () => {
  const { snapshot, share } = shareAt({
    '/': { links: ['/shop/a', '/shop/b', '/visit/'] },
    '/shop/a': { links: ['/shop/b', '/', '/shop/a'] },
    '/shop/b': {},
    '/visit/': { links: ['/shop/a', '/shop/a'] },
  });
  const { sections, pages, links, carried, share: bySection } = sectionFlow(snapshot, share);
  expect(sections).toEqual(['shop', '', 'visit']);
  expect(pages).toEqual([2, 1, 1]);
  expect(links).toEqual([
    [1, 1, 0],
    [2, 0, 1],
    [2, 0, 0],
  ]);
  expect(bySection.reduce((a, b) => a + b, 0)).toBeCloseTo(4, 9);
  // All that /visit/ passes on goes to the shop.
  expect(carried[2][0]).toBeCloseTo(DAMPING * bySection[2], 9);
});
