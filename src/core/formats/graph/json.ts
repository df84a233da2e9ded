/** Nodes and edges as JSON, as graph libraries exchange them: an object a node, and an object an edge. */
import type { Attribute } from './elements';
import type { Cell } from '../csv';
import type { GraphFormat } from './format';

const fields = (attributes: readonly Attribute[], cells: readonly Cell[]) =>
  Object.fromEntries(
    attributes.map(({ name, type }, i) => [
      name,
      type === 'decimal' && cells[i] !== null ? Number(cells[i]) : cells[i],
    ]),
  );
const line = (number: number, value: object) => `${number ? ',' : ''}\n${JSON.stringify(value)}`;

export const jsonFormat: GraphFormat = {
  head: () => '{"directed": true, "multigraph": true, "graph": {}, "nodes": [',
  node: ({ id, cells }, attributes, number) => line(number, { id, ...fields(attributes, cells) }),
  turn: '\n], "edges": [',
  edge: ({ source, target, cells }, attributes, number) =>
    line(number, { source, target, key: number, ...fields(attributes, cells) }),
  end: '\n]}\n',
};
