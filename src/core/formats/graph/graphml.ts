/** GraphML (U. Brandes et al., GraphML progress report, 2001), with the attributes of its primer. */
import type { Attribute, AttributeType } from './elements';
import type { Cell } from '../csv';
import type { GraphFormat } from './format';
import { xmlText } from './xml';

const types: Record<AttributeType, string> = { text: 'string', whole: 'long', decimal: 'double', flag: 'boolean' };

const keys = (of: 'node' | 'edge', attributes: readonly Attribute[]) =>
  attributes
    .map(({ name, type }) => `  <key id="${of}-${name}" for="${of}" attr.name="${name}" attr.type="${types[type]}"/>\n`)
    .join('');
const data = (of: 'node' | 'edge', attributes: readonly Attribute[], cells: readonly Cell[]) =>
  attributes
    .map(({ name }, i) =>
      cells[i] === null || cells[i] === '' ? '' : `<data key="${of}-${name}">${xmlText(cells[i])}</data>`,
    )
    .join('');

export const graphmlFormat: GraphFormat = {
  head: (nodes, edges) =>
    `<?xml version="1.0" encoding="UTF-8"?>\n<graphml xmlns="http://graphml.graphdrawing.org/xmlns">\n${keys('node', nodes)}${keys('edge', edges)}  <graph id="crawl" edgedefault="directed">\n`,
  node: ({ id, cells }, attributes) => `    <node id="${xmlText(id)}">${data('node', attributes, cells)}</node>\n`,
  turn: '',
  edge: ({ source, target, cells }, attributes, number) =>
    `    <edge id="${number}" source="${xmlText(source)}" target="${xmlText(target)}">${data('edge', attributes, cells)}</edge>\n`,
  end: '  </graph>\n</graphml>\n',
};
