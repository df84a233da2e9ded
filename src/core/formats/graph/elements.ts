/** A crawl as a graph: pages with their facts, and the click links between them. */
import { factNames, factOf } from '../../facts';
import type { ColumnName, FactName } from '../../facts';
import { CLICK_KIND } from '../../links';
import { followedTest } from '../../linkFacts';
import { hasBit } from '../../selection';
import type { Bits } from '../../selection';
import { addressAt } from '../../snapshot';
import type { View } from '../../view';
import { cellOf } from '../csv';
import type { Cell } from '../csv';
import { pageCell, placementCells } from '../export';

/** An edge for each link, or one for each pair of pages with the number of its links. */
export const graphEdges = ['links', 'pairs'] as const;
export type GraphEdges = (typeof graphEdges)[number];

export type AttributeType = 'text' | 'whole' | 'decimal' | 'flag';
export interface Attribute {
  name: string;
  type: AttributeType;
}

/** Facts of pages in files of graphs: all but the address, which is the name of the node. */
const nodeFacts = factNames.filter((name) => name !== 'url');

function typeOf(view: View, name: FactName): AttributeType {
  const { type } = factOf(name);
  if (type === 'flag') return 'flag';
  if (type !== 'number' && type !== 'ratio') return 'text';
  return view.column(name as ColumnName) instanceof Int32Array ? 'whole' : 'decimal';
}

export const nodeAttributes = (view: View): Attribute[] =>
  nodeFacts.map((name) => ({ name, type: typeOf(view, name) }));
export const edgeAttributes: readonly Attribute[] = [
  { name: 'anchor', type: 'text' },
  { name: 'placement', type: 'text' },
  { name: 'followed', type: 'flag' },
  { name: 'count', type: 'whole' },
];

export interface Node {
  id: string;
  /** In the order of the attributes; null for what is unknown. */
  cells: Cell[];
}
export interface Edge {
  source: string;
  target: string;
  cells: Cell[];
}

export function* nodesOf(view: View, pages: Bits): Generator<Node> {
  for (let page = 0; page < view.count; page++)
    if (hasBit(pages, page))
      yield { id: addressAt(view, page), cells: nodeFacts.map((name) => cellOf(pageCell(view, name, page))) };
}

/**
 * The click links between pages, those of a page to itself among them. Of a pair, anchor and placement are those of the
 * first link, and it is followed when any of its links is.
 */
export function* edgesOf(view: View, pages: Bits, edges: GraphEdges): Generator<Edge> {
  const { count, links, phrases } = view;
  const { offsets, kind, target, anchor, placement } = links;
  const isFollowed = followedTest(view);
  for (let page = 0; page < count; page++) {
    if (!hasBit(pages, page)) continue;
    const source = addressAt(view, page);
    /** Of this page, by target. */
    const pairs = new Map<number, Edge>();
    for (let link = offsets[page]; link < offsets[page + 1]; link++) {
      const to = target[link];
      if (kind[link] !== CLICK_KIND || to >= count || !hasBit(pages, to)) continue;
      const known = pairs.get(to);
      if (known) {
        known.cells[2] = known.cells[2] === true || isFollowed(link);
        known.cells[3] = (known.cells[3] as number) + 1;
        continue;
      }
      const cells = [phrases[anchor[link]], placementCells[placement[link]], isFollowed(link), 1];
      const edge = { source, target: addressAt(view, to), cells };
      if (edges === 'links') yield edge;
      else pairs.set(to, edge);
    }
    yield* pairs.values();
  }
}
