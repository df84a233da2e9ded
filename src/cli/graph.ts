/** `edgemap graph`: a crawl as a graph, for graph libraries. */
import { extname } from 'node:path';
import { graphFormats, graphPieces, nodesCsv } from '$core/formats';
import type { GraphEdges, GraphFormatName } from '$core/formats';
import { countBits } from '$core/selection';
import type { Database } from '$server/index';
import { selected, writePieces } from './export';
import { crawlFor } from './finished';
import type { ViewOptions } from './options';
import { failure } from '$core/errors';

export interface GraphCall {
  crawl: number;
  out: string;
  /** As the ending of the file says without. */
  format: GraphFormatName | null;
  select: ViewOptions['select'];
  edges: GraphEdges;
}

function formatOf({ out, format }: GraphCall): GraphFormatName {
  const ending = extname(out).slice(1).toLowerCase();
  const found = format ?? graphFormats.find((one) => one === ending);
  if (!found)
    throw failure('usage', `--format: say which one, as the file does not end in ${graphFormats.join(', ')}.`);
  return found;
}

/** Where the nodes stand beside a list of edges: graph.csv → graph-nodes.csv. */
const nodesFile = (out: string) => `${out.slice(0, out.length - extname(out).length)}-nodes.csv`;

export async function graphCommand(db: Database, call: GraphCall): Promise<number> {
  const { crawl, out, select, edges } = call;
  const format = formatOf(call);
  const { view } = await crawlFor(db, crawl, { select });
  const pages = selected(view, select);
  const write = (file: string, pieces: Iterable<string>) =>
    writePieces(file, pieces).catch((error: Error) => {
      throw failure('usage', `--out: ${error.message}`);
    });
  await write(out, graphPieces(view, { format, pages, edges }));
  if (format === 'csv') await write(nodesFile(out), nodesCsv(view, pages));
  const nodes = countBits(pages).toLocaleString('en');
  const written = format === 'csv' ? `${out}, and its nodes to ${nodesFile(out)}` : out;
  console.error(`Crawl ${crawl} is written as a graph of ${nodes} ${nodes === '1' ? 'page' : 'pages'} to ${written}.`);
  return 0;
}
