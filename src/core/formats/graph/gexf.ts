/** GEXF 1.3 (gexf.net). */
import type { Attribute, AttributeType } from './elements';
import type { Cell } from '../csv';
import type { GraphFormat } from './format';
import { xmlText } from './xml';

const types: Record<AttributeType, string> = { text: 'string', whole: 'long', decimal: 'double', flag: 'boolean' };

const declared = (of: 'node' | 'edge', attributes: readonly Attribute[]) =>
  `    <attributes class="${of}">\n${attributes
    .map(({ name, type }) => `      <attribute id="${name}" title="${name}" type="${types[type]}"/>\n`)
    .join('')}    </attributes>\n`;
const values = (attributes: readonly Attribute[], cells: readonly Cell[]) =>
  `<attvalues>${attributes
    .map(({ name }, i) =>
      cells[i] === null || cells[i] === '' ? '' : `<attvalue for="${name}" value="${xmlText(cells[i])}"/>`,
    )
    .join('')}</attvalues>`;
const countAt = (attributes: readonly Attribute[]) => attributes.findIndex(({ name }) => name === 'count');

export const gexfFormat: GraphFormat = {
  head: (nodes, edges) =>
    `<?xml version="1.0" encoding="UTF-8"?>\n<gexf xmlns="http://gexf.net/1.3" version="1.3">\n  <graph defaultedgetype="directed">\n${declared('node', nodes)}${declared('edge', edges)}    <nodes>\n`,
  node: ({ id, cells }, attributes) =>
    `      <node id="${xmlText(id)}" label="${xmlText(id)}">${values(attributes, cells)}</node>\n`,
  turn: '    </nodes>\n    <edges>\n',
  edge: ({ source, target, cells }, attributes, number) =>
    `      <edge id="${number}" source="${xmlText(source)}" target="${xmlText(target)}" weight="${cells[countAt(attributes)]}">${values(attributes, cells)}</edge>\n`,
  end: '    </edges>\n  </graph>\n</gexf>\n',
};
