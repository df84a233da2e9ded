import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  colourBy,
  edgesBetween,
  hangingOn,
  layLinks,
  linkNodes,
  MOST_NODES,
  neighboursOf,
  nodeLooks,
  openGroupOf,
  partsOfWays,
  placeLabels,
  wayBetween,
  waysOf,
} from '.';
import { clickDepths, incomingPages, pageGraph, visitorGraph } from '../reach';
import { evaluate, numbersOf, parseSelection } from '../selection';
import { addressAt, pageOf } from '../snapshot';
import { tiny, tinySite } from '../testing/tinySite';
import type { TinyPage } from '../testing/tinySite';
import type { View } from '../view';

const site = tinySite({
  '/': { links: ['/visit/', '/shop/'] },
  '/visit/': { links: ['/', '/visit/cafe', '/visit/prices', '/visit/prices'] },
  '/visit/cafe': { links: ['/visit/'] },
  '/visit/prices': {},
  '/shop/': { links: ['/'], nofollow: ['/shop/basket'] },
  '/shop/basket': {},
  '/alone': {},
});
const graph = pageGraph(visitorGraph(site));
const incoming = incomingPages(graph);
const all = (view: View) => Uint32Array.from({ length: view.count }, (_, page) => page);
const path = (page: number) => new URL(addressAt(site, page)).pathname;
const at = (name: string) => pageOf(site, tiny(name));
const selectedBy = (view: View, select: string) => {
  const parsed = parseSelection(select);
  if (!parsed.ok) throw new Error(select);
  return [...numbersOf(evaluate(view, parsed.selection))];
};

describe('the graph', () => {
  const nodes = linkNodes(site, all(site), null);
  const edges = edgesBetween(graph, nodes);
  it('has each page as a node, and each pair of linked pages as one edge', () => {
    expect(nodes.map(({ name }) => name)).toEqual([...all(site)].map(path));
    const written = [...edges.from].map((from, i) => `${path(from)} ${path(edges.to[i])}`);
    expect(written).toContain('/visit/ /visit/prices');
    expect(new Set(written).size).toBe(written.length);
    const isMutual = (pair: string) => edges.isMutual[written.indexOf(pair)] === 1;
    expect([isMutual('/visit/ /visit/cafe'), isMutual('/visit/ /visit/prices')]).toEqual([true, false]);
  });
  it('lies alike every time, with what nothing joins under all else', () => {
    const radii = nodes.map(() => 5);
    const places = layLinks(nodes, radii, edges);
    expect(layLinks(nodes, radii, edges)).toEqual(places);
    expect(places.apart?.nodes).toBe(1);
    expect(Math.max(...places.y)).toBe(places.y[at('/alone')]);
    for (let a = 0; a < nodes.length; a++)
      for (let b = 0; b < a; b++)
        expect(Math.hypot(places.x[a] - places.x[b], places.y[a] - places.y[b])).toBeGreaterThan(9);
  });
  it('tells of a page what it links to, what links to it, the way to it, and what hangs on it', () => {
    const { out, in: sources } = neighboursOf(graph, incoming, at('/visit/'));
    expect(out.map(({ page, isMutual }) => [path(page), isMutual])).toEqual([
      ['/', true],
      ['/visit/cafe', true],
      ['/visit/prices', false],
    ]);
    expect(sources.map(({ page }) => path(page))).toEqual(['/', '/visit/cafe']);
    const way = wayBetween(graph, incoming, site.column('share'), [at('/visit/cafe'), at('/shop/')]);
    expect(way.map(path)).toEqual(['/visit/cafe', '/visit/', '/', '/shop/']);
    expect(wayBetween(graph, incoming, site.column('share'), [at('/alone'), at('/')])).toEqual([]);
    const hanging = hangingOn(graph, clickDepths(graph, site.starts), at('/visit/'));
    expect([...hanging].map(path)).toEqual(['/visit/cafe', '/visit/prices']);
    expect([...hanging]).toEqual(selectedBy(site, `only through (url = "${tiny('/visit/')}")`));
  });
  it('comes to the browser as a reader walks it', () => {
    const links = (reader: 'visitor' | 'crawler') => pageGraph(waysOf(partsOfWays(site, reader), site.count)).targets;
    expect([...links('visitor')].map(path)).toContain('/shop/basket');
    expect([...links('crawler')].map(path)).not.toContain('/shop/basket');
  });
});

describe('groups', () => {
  const pages: Record<string, TinyPage> = { '/': { links: [] } };
  for (let section = 0; section < 4; section++)
    for (let page = 0; page < MOST_NODES / 3; page++)
      pages[`/s${section}/${page % 2 ? 'odd/' : ''}${page}`] = { links: [`/s${section}/0`] };
  const large = tinySite(pages);
  const nodes = linkNodes(large, all(large), null);
  it('stand for the pages of one section and community where there are too many', () => {
    expect(nodes.length).toBeLessThan(20);
    expect(nodes.reduce((sum, node) => sum + node.pages.length, 0)).toBe(large.count);
    for (const { pages: own, select } of nodes) expect(selectedBy(large, select)).toEqual([...own]);
  });
  it('open to their pages', () => {
    const open = openGroupOf(nodes[0].id)!;
    const within = linkNodes(large, all(large), open);
    expect(within.map(({ page }) => page)).toEqual([...nodes[0].pages]);
    expect(openGroupOf('no group')).toBeNull();
  });
  it('are as large as they have pages, and have the colour of most of them', () => {
    const looks = nodeLooks(nodes, colourBy(large, 'section', all(large)), null);
    expect(looks[0].radius).toBeGreaterThan(looks[looks.length - 1].radius);
    expect(looks[0].parts[looks[0].category]).toBe(nodes[0].pages.length);
  });
});

it('labels lie over no other and within the paper, whatever is labelled', () =>
  fc.assert(
    fc.property(
      fc.array(
        fc.record({
          x: fc.integer({ min: 0, max: 400 }),
          y: fc.integer({ min: 0, max: 300 }),
          radius: fc.integer({ min: 0, max: 12 }),
          width: fc.integer({ min: 1, max: 160 }),
          height: fc.integer({ min: 8, max: 18 }),
          isCentred: fc.boolean(),
        }),
        { maxLength: 60 },
      ),
      (labelled) => {
        const placed = placeLabels(labelled, { width: 400, height: 300 }, 40).map(({ of, x, y }) => ({
          ...{ left: x, top: y },
          ...{ right: x + labelled[of].width, bottom: y + labelled[of].height },
        }));
        placed.forEach((a, i) => {
          expect(a.left >= 0 && a.top >= 0 && a.right <= 400 && a.bottom <= 300).toBe(true);
          for (const b of placed.slice(i + 1))
            expect(a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom).toBe(false);
        });
      },
    ),
  ));
