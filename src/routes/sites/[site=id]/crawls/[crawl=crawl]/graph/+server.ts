import { error } from '@sveltejs/kit';
import { z } from 'zod';
import { graphEdges, graphFormats, graphPieces, nodesCsv } from '$core/formats';
import type { GraphFormatName } from '$core/formats';
import { selectPages } from '$server/index';
import { siteOf } from '../../../../../crawl';
import { streamed } from '../../../../../streamed';
import { errorTexts } from '../../../../../texts';
import { crawlForView } from '../../../../../view';
import type { RequestHandler } from './$types';

const types: Record<GraphFormatName, string> = {
  graphml: 'application/xml',
  gexf: 'application/xml',
  dot: 'text/vnd.graphviz',
  csv: 'text/csv',
  json: 'application/json',
};
const query = z.object({
  format: z.enum(graphFormats).default('graphml'),
  edges: z.enum(graphEdges).default('pairs'),
  select: z.string().default(''),
  /** Of CSV, whether the nodes are asked for instead of the edges. */
  nodes: z.stringbool().default(false),
});

/** The pages that a selection holds as a graph: `?format=graphml&edges=pairs&select=indexable`. */
export const GET: RequestHandler = async ({ locals, url }) => {
  const asked = query.safeParse(Object.fromEntries(url.searchParams));
  if (!asked.success) error(400, asked.error.issues[0].message);
  const { format, edges, select, nodes } = asked.data;
  // The links are asked for in any case.
  await crawlForView(locals, { list: 'links', select: '' }, url.searchParams);
  const { crawl, snapshot } = await crawlForView(locals, { list: 'pages', select }, url.searchParams);
  const { pages, fault } = selectPages(snapshot, select);
  if (fault) error(400, errorTexts.unreadableSelection(fault.message));
  const isNodes = format === 'csv' && nodes;
  const name = `graph-${new URL(siteOf(locals).start).hostname}-${crawl.id}${isNodes ? '-nodes' : ''}.${format}`;
  return new Response(streamed(isNodes ? nodesCsv(snapshot, pages) : graphPieces(snapshot, { format, pages, edges })), {
    headers: {
      'content-type': `${types[format]}; charset=utf-8`,
      'content-disposition': `attachment; filename="${name}"`,
    },
  });
};
