/** The DOT language of graph drawing programs (graphviz.org/doc/info/lang.html). */
import type { Attribute } from './elements';
import type { Cell } from '../csv';
import type { GraphFormat } from './format';

/** In quotes a backslash escapes only a quote for the language itself, but drawing reads more into it. */
const quoted = (value: unknown) =>
  `"${String(value)
    .replace(/\0/g, '')
    .replace(/[\r\n]+/g, ' ')
    .replace(/["\\]/g, '\\$&')}"`;
const list = (attributes: readonly Attribute[], cells: readonly Cell[]) =>
  attributes
    .flatMap(({ name }, i) => (cells[i] === null || cells[i] === '' ? [] : [`${name}=${quoted(cells[i])}`]))
    .join(', ');

export const dotFormat: GraphFormat = {
  head: () => 'digraph crawl {\n',
  node: ({ id, cells }, attributes) => `  ${quoted(id)} [${list(attributes, cells)}];\n`,
  turn: '',
  edge: ({ source, target, cells }, attributes) =>
    `  ${quoted(source)} -> ${quoted(target)} [${list(attributes, cells)}];\n`,
  end: '}\n',
};
