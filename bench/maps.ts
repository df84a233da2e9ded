/**
 * Maps: from what the browser is sent of a site to each picture as it is drawn, by the functions that the worker of the
 * browser calls; then how a graph of 2,000 pages lies, against d3-force with beginnings of its own on the same graph.
 */
import { forceLink, forceManyBody, forceSimulation, forceX, forceY } from 'd3-force';
import type { SimulationNodeDatum } from 'd3-force';
import { analyse } from '../src/core/analysis';
import {
  bandsOf,
  colourBy,
  edgesBetween,
  flowsBetween,
  folderTree,
  layBands,
  layIcicle,
  layLinks,
  linkNodes,
  nodeLooks,
  partsOfWays,
  routeTree,
  saidOf,
  waysOf,
} from '../src/core/maps';
import type { Edges, LinkNode } from '../src/core/maps';
import { clickDepths, incomingPages, pageGraph } from '../src/core/reach';
import { settingsSchema } from '../src/core/settings';
import { decodeBase } from '../src/core/snapshot';
import { viewOf } from '../src/core/view';
import { addressOf, build } from './coreSite';

const [pages, links] = process.argv.slice(2).map(Number);
const settings = settingsSchema.parse({ start: addressOf(0) });
function siteOf(count: number, perPage: number) {
  const { parts } = build({ count, perPage });
  const view = viewOf(analyse(decodeBase(parts, parts.keys()), settings));
  return { view, all: Uint32Array.from({ length: view.count }, (_, page) => page) };
}
function timed<T>(name: string, run: () => T): T {
  const start = performance.now();
  const value = run();
  console.log(`  ${name}: ${((performance.now() - start) / 1000).toFixed(2)} s`);
  return value;
}

console.log(`${pages.toLocaleString('en')} pages with ${links} links each, from what is sent to what is drawn`);
const { view, all } = siteOf(pages, links);
const sent = partsOfWays(view, 'visitor');
console.log(
  `  links as sent: ${Math.round([...sent.values()].reduce((sum, one) => sum + one.length, 0) / 2 ** 20)} MiB`,
);
const colouring = timed('colours', () => colourBy(view, 'verdict', all));
const drawing = { colouring, sizes: view.column('share'), width: 1080, height: 560 };
timed('the sentence', () => saidOf(view, all));
const bands = timed('bands', () => {
  const found = bandsOf(view, all, 'visitor');
  layBands(found, drawing);
  return found;
});
timed('routes, whole', () => layIcicle(view, routeTree(view, all)!, drawing));
timed('folders, whole', () => layIcicle(view, folderTree(view, all)!, drawing));
const walked = timed('links as walked', () => waysOf(sent, view.count));
const graph = timed('pairs', () => pageGraph(walked));
timed('depths and who links', () => [clickDepths(graph, view.starts), incomingPages(graph)]);
timed('flows between bands', () =>
  flowsBetween(
    walked,
    bands.flatMap(({ cells }) => cells),
  ),
);
timed('groups of links, laid out', () => {
  const nodes = linkNodes(view, all, null);
  const radii = nodeLooks(nodes, colouring, null).map(({ radius }) => radius);
  layLinks(nodes, radii, edgesBetween(graph, nodes));
});

/** How far distances on paper are from clicks without direction: least over all scales, by pair of joined nodes. */
function stressOf(nodes: number, { from, to }: Edges, x: ArrayLike<number>, y: ArrayLike<number>): number {
  const beside: number[][] = Array.from({ length: nodes }, () => []);
  from.forEach((source, edge) => {
    beside[source].push(to[edge]);
    beside[to[edge]].push(source);
  });
  let [pairs, linear, square] = [0, 0, 0];
  for (let start = 0; start < nodes; start++) {
    const clicks = new Int32Array(nodes).fill(-1);
    clicks[start] = 0;
    const reached = [start];
    for (const at of reached)
      for (const other of beside[at])
        if (clicks[other] < 0) {
          clicks[other] = clicks[at] + 1;
          reached.push(other);
        }
    for (const other of reached) {
      if (other <= start) continue;
      const part = Math.hypot(x[start] - x[other], y[start] - y[other]) / clicks[other];
      pairs++;
      linear += part;
      square += part * part;
    }
  }
  return 1 - linear ** 2 / square / pairs;
}

function byItself(nodes: readonly LinkNode[], { from, to }: Edges) {
  const bodies: SimulationNodeDatum[] = nodes.map(() => ({}));
  const simulation = forceSimulation(bodies)
    .force('link', forceLink(Array.from(from, (source, edge) => ({ source, target: to[edge] }))))
    .force('charge', forceManyBody())
    .force('x', forceX())
    .force('y', forceY())
    .stop();
  simulation.tick(300);
  return { x: bodies.map((body) => body.x!), y: bodies.map((body) => body.y!) };
}

console.log('2,000 pages with 10 links each, laid out to rest');
const small = siteOf(2000, 10);
const smallGraph = pageGraph(waysOf(partsOfWays(small.view, 'visitor'), small.view.count));
const nodes = linkNodes(small.view, small.all, null);
const edges = edgesBetween(smallGraph, nodes);
// What leads everywhere pulls nothing in either.
const pulling = { ...edges, isEverywhere: new Uint8Array(edges.from.length) };
const ours = timed('ours', () =>
  layLinks(
    nodes,
    nodes.map(() => 7),
    pulling,
  ),
);
const theirs = timed('d3-force by itself', () => byItself(nodes, edges));
const [stress, peer] = [ours, theirs].map(({ x, y }) => stressOf(nodes.length, edges, x, y));
console.log(`  stress: ours ${stress.toFixed(3)}, d3-force ${peer.toFixed(3)}, ratio ${(stress / peer).toFixed(2)}`);
