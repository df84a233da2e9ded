/** Trees on a paper, from left to right: whole as an icicle, or as nodes and lines as far as they can be read. */
import type { View } from '../view';
import { partsOf } from './scene';
import type { Box, Drawing, Joint, Scene } from './scene';
import type { TreeNode } from './tree';

/** Levels beside each other. */
const LEVELS = 5;
const GAP = 3;
/** Lower boxes are drawn together. */
const LEAST_HEIGHT = 4;
const ROW = 24;
const ROW_BOX = 19;
const NODE_GAP = 34;
const LEAST_LEVEL = 150;

type Place = Pick<Box, 'x' | 'y' | 'width' | 'height'>;

function boxReader(view: View, { colouring }: Drawing) {
  const gates = view.column('gate_for');
  const depth = view.column('depth');
  return (node: TreeNode, place: Place): Box => ({
    ...place,
    id: node.id,
    name: node.name,
    folded: node.folded,
    pages: node.pages.length,
    parts: partsOf(node.pages, colouring.of, colouring.categories.length),
    select: node.select,
    page: node.page < 0 ? undefined : node.page,
    opens: node.children.length > 0,
    isLost: node.pages.length > 0 && node.pages.every((page) => depth[page] < 0),
    isGate: node.page >= 0 && gates[node.page] > 0,
    isBare: node.isBare,
  });
}

const weightOf = ({ pages }: TreeNode) => Math.max(1, pages.length);

/** The children of a node that are high enough to be seen, and what is left of them as one. */
function seen(node: TreeNode, height: number): TreeNode[] {
  const all = node.children.reduce((sum, child) => sum + weightOf(child), 0);
  const high = (child: TreeNode) => (height * weightOf(child)) / Math.max(all, weightOf(node));
  const own = node.children.filter((child) => high(child) >= LEAST_HEIGHT);
  const rest = node.children.filter((child) => high(child) < LEAST_HEIGHT);
  if (rest.length === 0) return own;
  const pages = rest.flatMap((child) => child.pages);
  const left: TreeNode = { id: `${node.id} …`, page: -1, name: null, pages, children: [], select: '' };
  return [...own, { ...left, folded: rest.length }];
}

/** All of a tree: each node beside what is below it, as high as its pages are many. */
export function layIcicle(view: View, root: TreeNode, drawing: Drawing): Scene {
  const boxOf = boxReader(view, drawing);
  const wide = drawing.width / LEVELS;
  const boxes: Box[] = [];
  const lay = (node: TreeNode, level: number, y: number, height: number): void => {
    boxes.push(
      boxOf(node, { x: level * wide, y, width: wide - GAP, height: Math.max(1, height - (height > 8 ? 1 : 0)) }),
    );
    if (level + 1 >= LEVELS) return;
    const children = seen(node, height);
    const all = Math.max(
      weightOf(node),
      children.reduce((sum, child) => sum + weightOf(child), 0),
    );
    let at = y;
    for (const child of children) {
      const high = (height * weightOf(child)) / all;
      lay(child, level + 1, at, high);
      at += high;
    }
  };
  lay(root, 0, 0, drawing.height);
  return { width: drawing.width, height: drawing.height, boxes, dots: [], captions: [], joints: [] };
}

/** Which nodes are open so that all rows fit: the heaviest first, level by level. */
function opened(root: TreeNode, rows: number): Set<TreeNode> {
  const open = new Set<TreeNode>();
  let used = 1;
  const waiting: { node: TreeNode; level: number }[] = [{ node: root, level: 0 }];
  while (waiting.length > 0) {
    waiting.sort((a, b) => a.level - b.level || b.node.pages.length - a.node.pages.length);
    const { node, level } = waiting.shift()!;
    const more = node.children.length - 1;
    if (node.children.length === 0 || level + 1 >= LEVELS) continue;
    if (node !== root && used + more > rows) continue;
    open.add(node);
    used += more;
    waiting.push(...node.children.map((child) => ({ node: child, level: level + 1 })));
  }
  return open;
}

/** A tree as nodes in rows, joined by lines; what would take too many rows stays closed. */
export function layNodes(view: View, root: TreeNode, drawing: Drawing): Scene {
  const boxOf = boxReader(view, drawing);
  const open = opened(root, Math.floor(drawing.height / ROW));
  const levels = (node: TreeNode): number => (open.has(node) ? 1 + Math.max(...node.children.map(levels)) : 1);
  const wide = Math.max(LEAST_LEVEL, drawing.width / levels(root));
  const boxes: Box[] = [];
  const joints: Joint[] = [];
  let row = 0;
  const lay = (node: TreeNode, level: number): number => {
    const at = boxes.length;
    const place = { x: level * wide, width: wide - NODE_GAP, height: ROW_BOX };
    boxes.push(boxOf(node, { ...place, y: 0 }));
    let y = row * ROW;
    if (open.has(node)) {
      const ys = node.children.map((child) => {
        joints.push({ from: node.id, to: child.id });
        return lay(child, level + 1);
      });
      y = (ys[0] + ys[ys.length - 1]) / 2;
    } else row++;
    boxes[at].y = y;
    return y;
  };
  lay(root, 0);
  return { width: drawing.width, height: Math.max(1, row * ROW), boxes, dots: [], captions: [], joints };
}
