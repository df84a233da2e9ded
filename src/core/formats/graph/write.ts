/** Writes a crawl as a graph, piece by piece, in formats that graph libraries read. */
import type { Bits } from '../../selection';
import type { View } from '../../view';
import { csvPieces } from '../csv';
import type { Cell } from '../csv';
import { dotFormat } from './dot';
import { edgeAttributes, edgesOf, nodeAttributes, nodesOf } from './elements';
import type { GraphEdges } from './elements';
import type { GraphFormat } from './format';
import { gexfFormat } from './gexf';
import { graphmlFormat } from './graphml';
import { jsonFormat } from './json';

export const graphFormats = ['graphml', 'gexf', 'dot', 'csv', 'json'] as const;
export type GraphFormatName = (typeof graphFormats)[number];

const formats: Record<Exclude<GraphFormatName, 'csv'>, GraphFormat> = {
  graphml: graphmlFormat,
  gexf: gexfFormat,
  dot: dotFormat,
  json: jsonFormat,
};

/** Characters that are written together. */
const PIECE = 1 << 16;

function* inPieces(texts: Iterable<string>): Generator<string> {
  let piece = '';
  for (const text of texts) {
    piece += text;
    if (piece.length < PIECE) continue;
    yield piece;
    piece = '';
  }
  if (piece) yield piece;
}

function* parts(format: GraphFormat, view: View, pages: Bits, edges: GraphEdges): Generator<string> {
  const attributes = nodeAttributes(view);
  yield format.head(attributes, edgeAttributes);
  let number = 0;
  for (const node of nodesOf(view, pages)) yield format.node(node, attributes, number++);
  yield format.turn;
  number = 0;
  for (const edge of edgesOf(view, pages, edges)) yield format.edge(edge, edgeAttributes, number++);
  yield format.end;
}

/** The edges as CSV, `source,target` first. */
function* edgeRows(view: View, pages: Bits, edges: GraphEdges): Generator<readonly Cell[]> {
  yield ['source', 'target', ...edgeAttributes.map(({ name }) => name)];
  for (const { source, target, cells } of edgesOf(view, pages, edges)) yield [source, target, ...cells];
}

/** The nodes as CSV, `url` first. */
export function nodesCsv(view: View, pages: Bits): Generator<string> {
  function* rows(): Generator<readonly Cell[]> {
    yield ['url', ...nodeAttributes(view).map(({ name }) => name)];
    for (const { id, cells } of nodesOf(view, pages)) yield [id, ...cells];
  }
  return csvPieces(rows());
}

/**
 * A graph as a file. As CSV it is the list of edges, for which {@link nodesCsv} writes the nodes.
 * @param pages those that are its nodes; links to others are left out
 */
export const graphPieces = (
  view: View,
  { format, pages, edges }: { format: GraphFormatName; pages: Bits; edges: GraphEdges },
): Generator<string> =>
  format === 'csv' ? csvPieces(edgeRows(view, pages, edges)) : inPieces(parts(formats[format], view, pages, edges));
