import type { Attribute, Edge, Node } from './elements';

/** How a format writes each part of a graph. */
export interface GraphFormat {
  head: (nodes: readonly Attribute[], edges: readonly Attribute[]) => string;
  node: (node: Node, attributes: readonly Attribute[], number: number) => string;
  /** Between nodes and edges. */
  turn: string;
  edge: (edge: Edge, attributes: readonly Attribute[], number: number) => string;
  end: string;
}
