import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  bandsOf,
  bandWithin,
  colourBy,
  flowsBetween,
  folderTree,
  layBands,
  layIcicle,
  layNodes,
  openCellOf,
  routeTree,
  saidOf,
  scaleSteps,
  wayTo,
} from '.';
import type { Scene } from '.';
import { clickDepths, pageGraph, visitorGraph } from '../reach';
import { evaluate, numbersOf, parseSelection } from '../selection';
import { addressAt, pageOf } from '../snapshot';
import { tiny, tinySite } from '../testing/tinySite';
import type { View } from '../view';

const site = tinySite({
  '/': { links: ['/trams/', '/shop/', '/trams/one'] },
  '/trams/': { links: ['/trams/one', '/trams/two', '/trams/three', '/trams/four', '/trams/five', '/'] },
  '/trams/one': { links: ['/shop/'] },
  '/trams/two': {},
  '/trams/three': {},
  '/trams/four': {},
  '/trams/five': {},
  '/shop/': { links: ['/shop/cards/red', '/trams/'] },
  '/shop/cards/red': {},
  '/archive/old': { links: ['/archive/older'] },
  '/archive/older': {},
});
const all = (view: View) => Uint32Array.from({ length: view.count }, (_, page) => page);
const paths = (view: View, pages: Iterable<number>) =>
  [...pages].map((page) => new URL(addressAt(view, page)).pathname).sort();
const selectedBy = (view: View, select: string) => {
  const parsed = parseSelection(select);
  if (!parsed.ok) throw new Error(select);
  return paths(view, numbersOf(evaluate(view, parsed.selection)));
};
const drawing = (view: View) => ({
  colouring: colourBy(view, 'verdict', all(view)),
  sizes: view.column('share'),
  width: 900,
  height: 500,
});

/** No two boxes of a scene lie over each other. */
function apart({ boxes }: Scene): boolean {
  const sorted = [...boxes].sort((a, b) => a.x - b.x);
  return sorted.every((a, i) =>
    sorted
      .slice(i + 1)
      .every((b) => b.x >= a.x + a.width - 0.01 || b.y >= a.y + a.height - 0.01 || a.y >= b.y + b.height - 0.01),
  );
}

describe('bands', () => {
  const bands = bandsOf(site, all(site), 'visitor');
  it('go down from the start by depth, with what has no route at the foot', () =>
    expect(bands.map(({ depth, pages }) => [depth, pages])).toEqual([
      [0, 1],
      [1, 3],
      [2, 5],
      [null, 2],
    ]));
  it('have cells whose selections hold their pages', () => {
    for (const { pages, select } of bands.flatMap(({ cells }) => cells))
      expect(selectedBy(site, select)).toEqual(paths(site, pages));
  });
  it('open a cell by the folders within it', () => {
    const open = openCellOf(bands[2].cells.find(({ name }) => name === 'shop')!.id)!;
    expect(bandWithin(site, all(site), 'visitor', open)!.cells.map(({ name }) => name)).toEqual(['/shop/cards/']);
    const mixed = tinySite({
      '/': { links: ['/a/x', '/a/y', '/a/b/one', '/a/b/two'] },
      '/a/x': {},
      '/a/y': {},
      '/a/b/one': {},
      '/a/b/two': {},
    });
    const within = bandWithin(mixed, all(mixed), 'visitor', { depth: 1, section: 'a', folder: null })!;
    expect(within.cells.map(({ name }) => name)).toEqual(['/a/', '/a/b/']);
    for (const { pages, select } of within.cells) expect(selectedBy(mixed, select)).toEqual(paths(mixed, pages));
    expect(openCellOf('nothing of the kind')).toBeNull();
  });
  it('put files in the root together, each of which would be a section', () => {
    const flat = tinySite({
      '/': { links: ['/a.html', '/b.html', '/d.html', '/e.html', '/c/', '/c'] },
      '/a.html': {},
      '/b.html': {},
      '/d.html': {},
      '/e.html': {},
      '/c': {},
      '/c/': {},
    });
    const { cells } = bandsOf(flat, all(flat), 'visitor')[1];
    expect(cells.map(({ name, pages }) => [name, pages.length])).toEqual([
      ['/*', 4],
      ['c', 2],
    ]);
    for (const { pages, select } of cells) expect(selectedBy(flat, select)).toEqual(paths(flat, pages));
  });
  it('tell the links between cells, the heaviest first, and none within one', () => {
    const cells = bands.flatMap((band) => band.cells);
    const nameOf = (id: string) => {
      const { depth, name } = cells.find((cell) => cell.id === id)!;
      return `${depth} ${name}`;
    };
    const flows = flowsBetween(visitorGraph(site), cells).map(({ from, to, links }) => [
      nameOf(from),
      nameOf(to),
      links,
    ]);
    expect(flows[0]).toEqual(['1 trams', '2 trams', 4]);
    expect(flows.every(([from, to]) => from !== to)).toBe(true);
  });
  it('lay nothing over each other, whatever the site', () =>
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(5), fc.nat(30)), { maxLength: 60 }), (links) => {
        const made: Record<string, { links: string[] }> = { '/': { links: ['/s0/0'] } };
        for (const [section, page] of links) made[`/s${section}/${page}`] = { links: [] };
        for (const [section, page] of links) made[`/s${section}/${page}`].links.push(`/s${page % 6}/${section}`);
        const view = tinySite(made);
        const scene = layBands(bandsOf(view, all(view), 'visitor'), drawing(view));
        expect(apart(scene)).toBe(true);
        expect(scene.dots).toHaveLength(view.count);
      }),
      { numRuns: 30 },
    ));
});

describe('trees', () => {
  it('put each page under the page that leads to it, and fold those that are alike', () => {
    const root = routeTree(site, all(site))!;
    expect(root.pages).toHaveLength(9);
    const trams = root.children.find(({ name }) => name === '/trams/')!;
    expect(trams.children.map(({ name, folded }) => [name, folded])).toEqual([['/trams/*', 4]]);
    expect(selectedBy(site, trams.children[0].select)).toEqual(paths(site, trams.children[0].pages));
    expect(wayTo(root, tiny('/shop/cards/red')).map(({ name }) => name)).toEqual(['/', '/shop/', '/shop/cards/red']);
  });
  it('fold only pages that lead nowhere, by a selection that holds no others', () => {
    const view = tinySite({
      '/': { links: ['/a.b/1', '/a.b/2', '/a.b/3', '/a.b/4', '/a.b/5', '/a.b/in/6', '/axb/7'] },
      ...Object.fromEntries(['/a.b/1', '/a.b/2', '/a.b/3', '/a.b/4', '/a.b/in/6', '/axb/7', '/c'].map((p) => [p, {}])),
      '/a.b/5': { links: ['/c'] },
    });
    const fold = routeTree(view, all(view))!.children.find(({ folded }) => folded)!;
    expect(selectedBy(view, fold.select)).toEqual(['/a.b/1', '/a.b/2', '/a.b/3', '/a.b/4']);
  });
  it('begin with another page', () => {
    const from = pageOf(site, tiny('/archive/old'));
    const root = routeTree(site, all(site), {
      from,
      parent: clickDepths(pageGraph(visitorGraph(site)), [from]).parent,
    })!;
    expect(paths(site, root.pages)).toEqual(['/archive/old', '/archive/older']);
  });
  it('are of folders, those without a page told apart', () => {
    const root = folderTree(site, all(site))!;
    const bare = (name: string) => root.children.find((child) => child.name === name)!.isBare;
    expect([bare('/trams/'), bare('/archive/'), root.pages.length]).toEqual([false, true, 11]);
  });
  it.each([layIcicle, layNodes])('lay nothing over each other (%o)', (lay) => {
    for (const root of [routeTree(site, all(site))!, folderTree(site, all(site))!])
      expect(apart(lay(site, root, drawing(site)))).toBe(true);
  });
});

describe('colours', () => {
  it('have selections that hold their pages', () => {
    for (const by of ['verdict', 'section', 'depth', 'share'] as const) {
      const { categories, of } = colourBy(site, by, all(site));
      categories.forEach(({ select, pages }, category) => {
        const own = all(site).filter((page) => of[page] === category);
        expect(own).toHaveLength(pages);
        if (by !== 'share') expect(selectedBy(site, select)).toEqual(paths(site, own));
      });
    }
  });
  it('have steps that begin within no equal numbers', () =>
    fc.assert(
      fc.property(fc.array(fc.nat(20)), (numbers) => {
        const steps = scaleSteps(numbers.sort((a, b) => a - b));
        expect(steps).toEqual([...new Set(steps)].sort((a, b) => a - b));
        expect(steps[0]).toBe(numbers[0]);
      }),
    ));
});

it('says where most pages are, and what has no route', () =>
  expect(saidOf(site, all(site))).toMatchObject({
    usual: { depth: 2, pages: 5 },
    lost: 2,
    lostMost: { section: 'archive', pages: 2 },
  }));
