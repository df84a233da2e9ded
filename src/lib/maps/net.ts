/** The picture of links in pixels: what is where, what is near, and what is written. */
import { placeLabels } from '$core/maps';
import type { Net, NetNode } from './ask';
import { fitted, widthOf } from '../shell/textWidth';
import { LEAST_PIXELS } from './netCanvas';
import type { NetView } from './netCanvas';

/** Free around the graph when all of it is seen. */
const MARGIN = 26;
const MOST_LABELS = 60;
const LABEL_WIDTH = 190;
/** How far from a node it can still be pointed at, in pixels. */
const REACH = 5;

interface Paper {
  width: number;
  height: number;
}

/** The view that shows all of a graph in the middle. @param covered pixels at the left that something else covers */
export function wholeView({ nodes }: Pick<Net, 'nodes'>, { width, height }: Paper, covered: number): NetView {
  const free = width - covered;
  let [left, right, top, bottom] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const { x, y, radius } of nodes) {
    left = Math.min(left, x - radius);
    right = Math.max(right, x + radius);
    top = Math.min(top, y - radius);
    bottom = Math.max(bottom, y + radius);
  }
  if (left > right) return { scale: 1, left: 0, top: 0 };
  const scale = Math.min(2, (free - 2 * MARGIN) / (right - left || 1), (height - 2 * MARGIN) / (bottom - top || 1));
  return {
    scale,
    left: covered + free / 2 - (scale * (left + right)) / 2,
    top: height / 2 - (scale * (top + bottom)) / 2,
  };
}

/** A view so many times as large around a point that stays where it is. */
export const zoomedBy = ({ scale, left, top }: NetView, by: number, x: number, y: number): NetView => ({
  scale: scale * by,
  left: x - by * (x - left),
  top: y - by * (y - top),
});

interface Placed {
  x: number;
  y: number;
  radius?: number;
}

export const pixelsOf = ({ scale, left, top }: NetView, { x, y, radius = 0 }: Placed) => ({
  x: x * scale + left,
  y: y * scale + top,
  radius: Math.max(LEAST_PIXELS, radius * scale),
});

/** The node at a place of the paper; -1 for none. */
export function nodeAt(nodes: readonly NetNode[], view: NetView, x: number, y: number): number {
  let [best, least] = [-1, Infinity];
  nodes.forEach((node, i) => {
    const at = pixelsOf(view, node);
    const away = Math.hypot(at.x - x, at.y - y) - at.radius;
    if (away < least) [best, least] = [i, away];
  });
  return least <= REACH ? best : -1;
}

/** A text that is to stand at a place of the paper. */
export interface Wanted {
  key: string;
  text: string;
  x: number;
  y: number;
  radius: number;
  /** In pixels. */
  size: number;
  weight: number;
  isCentred?: boolean;
}

/** How high texts are written: they grow with the picture. */
export const textSize = (zoom: number) => Math.min(15, 11 + Math.log2(Math.max(1, zoom)));

/** The texts that have room, as far as they fit, with their upper left corners; the first ones matter most. */
export function written(wanted: readonly Wanted[], paper: Paper) {
  const texts = wanted
    .filter(({ x, y }) => x >= 0 && y >= 0 && x <= paper.width && y <= paper.height)
    .slice(0, 6 * MOST_LABELS)
    .map((one) => {
      const text = fitted(one.text, LABEL_WIDTH, { keepsEnd: true, weight: one.weight });
      return { ...one, text, width: (widthOf(text, one.weight) * one.size) / 12, height: one.size + 3 };
    });
  return placeLabels(texts, paper, MOST_LABELS).map(({ of, x, y }) => ({ ...texts[of], x, y }));
}
