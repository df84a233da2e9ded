/** Where the nodes of a graph lie: forces, begun from depth and section, so that it comes out alike every time. */
import { forceCollide, forceLink, forceManyBody, forceSimulation, forceX, forceY } from 'd3-force';
import type { SimulationNodeDatum } from 'd3-force';
import type { Edges, LinkNode } from './linkMap';

export interface Places {
  x: Float32Array;
  y: Float32Array;
  /** Nodes that nothing joins to others lie in rows of their own; null when there are none. */
  apart: { x: number; y: number; width: number; height: number; nodes: number } | null;
}

/** From the start to the circle of depth 1, at the beginning; those of deeper pages are closer to each other. */
const RING = 140;
const USUAL_DEPTH = 5;
const LINK_LENGTH = 34;
const REPULSION = -70;
/** Larger nodes keep others farther off. */
const USUAL_RADIUS = 7;
const FAR = 500;
/** How often forces are reckoned until they rest: fewer times than from anywhere, as the beginning is half the way. */
const TICKS = 80;
const PARTING_TICKS = 20;
/** From how far off many nodes push as one (Barnes and Hut's theta). */
const ROUGHNESS = 1.3;
/** Paper is wider than high, so that what is above and below is drawn to the middle more. */
const TOWARDS_MIDDLE = { x: 0.03, y: 0.07 };
const GAP = 4;
/** Between the graph and what nothing joins to it. */
const BESIDES = 30;

/** A number from 0 to below 1 of a text (Fowler, Noll and Vo's hash FNV-1a). */
function partOf(text: string): number {
  let hash = 0x811c9dc5;
  for (let at = 0; at < text.length; at++) hash = Math.imul(hash ^ text.charCodeAt(at), 0x01000193);
  return (hash >>> 0) / 2 ** 32;
}

/** Where each node begins: its section is a direction, as wide as its part of the nodes; its depth how far out. */
export function beginnings(nodes: readonly LinkNode[]): { x: number; y: number }[] {
  const counts = new Map<number, number>();
  for (const { section } of nodes) counts.set(section, (counts.get(section) ?? 0) + 1);
  const names = new Map(nodes.map(({ section, name }) => [section, name ?? '']));
  const order = [...counts.keys()].sort((a, b) => (names.get(a)! < names.get(b)! ? -1 : 1));
  const begins = new Map<number, number>();
  let at = 0;
  for (const section of order) {
    begins.set(section, at);
    at += counts.get(section)! / nodes.length;
  }
  // What has no route begins near what has one, and not beyond the end of a calendar.
  const deepest = Math.min(
    USUAL_DEPTH,
    nodes.reduce((most, { depth }) => Math.max(most, depth), 0),
  );
  return nodes.map(({ id, section, depth }) => {
    const turn = begins.get(section)! + (partOf(id) * counts.get(section)!) / nodes.length;
    const out = RING * Math.log2(1 + (depth < 0 ? deepest + 1 : depth)) + partOf(`${id} `);
    return { x: out * Math.cos(2 * Math.PI * turn), y: out * Math.sin(2 * Math.PI * turn) };
  });
}

interface Body extends SimulationNodeDatum {
  radius: number;
}

/**
 * Lays a graph out until it rests. Links that lead everywhere pull nothing.
 * @param radii of the nodes
 */
export function layLinks(
  nodes: readonly LinkNode[],
  radii: readonly number[],
  { from, to, isEverywhere }: Edges,
): Places {
  const pulls = Array.from(from, (source, edge) => ({ source, target: to[edge], edge })).filter(
    ({ edge }) => isEverywhere[edge] === 0,
  );
  const isJoined = new Uint8Array(nodes.length);
  for (const { source, target } of pulls) isJoined[source] = isJoined[target] = 1;
  const begins = beginnings(nodes);
  const joined = [...nodes.keys()].filter((node) => isJoined[node] === 1);
  const bodies: Body[] = joined.map((node) => ({ ...begins[node], radius: radii[node] }));
  const numbers = new Map(joined.map((node, i) => [node, i]));
  const simulation = forceSimulation(bodies)
    .force(
      'link',
      forceLink<Body, { source: number | Body; target: number | Body }>(
        pulls.map(({ source, target }) => ({ source: numbers.get(source)!, target: numbers.get(target)! })),
      ).distance(({ source, target }) => LINK_LENGTH + (source as Body).radius + (target as Body).radius),
    )
    .force(
      'charge',
      forceManyBody<Body>()
        .strength(({ radius }) => REPULSION * Math.max(1, radius / USUAL_RADIUS))
        .theta(ROUGHNESS)
        .distanceMax(FAR),
    )
    .force('x', forceX<Body>().strength(TOWARDS_MIDDLE.x))
    .force('y', forceY<Body>().strength(TOWARDS_MIDDLE.y))
    .stop();
  simulation.alphaDecay(1 - simulation.alphaMin() ** (1 / TICKS)).tick(TICKS);
  // What lies over each other is parted at the end only.
  simulation
    .force(
      'collide',
      forceCollide<Body>(({ radius }) => radius + GAP / 2),
    )
    .tick(PARTING_TICKS);
  const [x, y] = [new Float32Array(nodes.length), new Float32Array(nodes.length)];
  joined.forEach((node, i) => {
    x[node] = bodies[i].x!;
    y[node] = bodies[i].y!;
  });
  return { x, y, apart: layApart(nodes, radii, isJoined, { x, y }) };
}

/** Puts the nodes that nothing joins in rows under the others. */
function layApart(
  nodes: readonly LinkNode[],
  radii: readonly number[],
  isJoined: Uint8Array,
  { x, y }: { x: Float32Array; y: Float32Array },
): Places['apart'] {
  const alone = [...nodes.keys()].filter((node) => isJoined[node] === 0);
  if (alone.length === 0) return null;
  alone.sort((a, b) => nodes[a].section - nodes[b].section || (nodes[a].id < nodes[b].id ? -1 : 1));
  const pitch = 2 * alone.reduce((most, node) => Math.max(most, radii[node]), 0) + GAP;
  const of = (values: Float32Array) => [...nodes.keys()].filter((node) => isJoined[node]).map((node) => values[node]);
  const [xs, ys] = [of(x), of(y)];
  const least = (values: number[]) => values.reduce((best, value) => Math.min(best, value), Infinity);
  const most = (values: number[]) => values.reduce((best, value) => Math.max(best, value), -Infinity);
  const isEmpty = xs.length === 0;
  const square = pitch * Math.ceil(1.6 * Math.sqrt(alone.length));
  const width = isEmpty ? square : Math.max(most(xs) - least(xs), square);
  const left = isEmpty ? 0 : (least(xs) + most(xs) - width) / 2;
  const top = isEmpty ? 0 : most(ys) + pitch + BESIDES;
  const inRow = Math.max(1, Math.floor(width / pitch));
  alone.forEach((node, i) => {
    x[node] = left + ((i % inRow) + 0.5) * pitch;
    y[node] = top + (Math.floor(i / inRow) + 0.5) * pitch;
  });
  return { x: left, y: top, width, height: pitch * Math.ceil(alone.length / inRow), nodes: alone.length };
}
