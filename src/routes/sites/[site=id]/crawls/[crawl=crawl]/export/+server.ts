import { error } from '@sveltejs/kit';
import { listAs, tableFormats } from '$core/formats';
import type { TableFormat } from '$core/formats';
import { readNumbers } from '$core/numbers';
import { orderedRows } from '$server/index';
import { siteOf } from '../../../../../crawl';
import { streamed } from '../../../../../streamed';
import { crawlForView, readableList, viewOf } from '../../../../../view';
import type { RequestHandler } from './$types';
import { errorTexts } from '../../../../../texts';

const types: Record<TableFormat, string> = {
  csv: 'text/csv',
  tsv: 'text/tab-separated-values',
  json: 'application/json',
};

async function answer(locals: App.Locals, query: URLSearchParams, isPicked: ((id: number) => boolean) | null) {
  const format = (query.get('format') ?? 'csv') as TableFormat;
  if (!tableFormats.includes(format)) error(400, errorTexts.tableFormats(tableFormats));
  const { view, columns } = viewOf(query);
  const { crawl, snapshot } = await crawlForView(locals, view, query);
  const list = readableList(snapshot, view);
  const rows = orderedRows(snapshot, view);
  const pieces = listAs(format, list, isPicked ? rows.filter(isPicked) : rows, columns);
  const name = `${view.list}-${new URL(siteOf(locals).start).hostname}-${crawl.id}.${format}`;
  return new Response(streamed(pieces), {
    headers: {
      'content-type': `${types[format]}; charset=utf-8`,
      'content-disposition': `attachment; filename="${name}"`,
    },
  });
}

/** A list as a file, as it is seen: the query of a view and `&format=csv|tsv|json`. */
export const GET: RequestHandler = ({ locals, url }) => answer(locals, url.searchParams, null);

/** As GET, for the rows only whose numbers the body names, as in `1,4-9`; with `&except` for all but those. */
export const POST: RequestHandler = async ({ locals, url, request }) => {
  const picked = readNumbers(await request.text());
  if (!picked) error(400, errorTexts.pickedRows);
  const isExcept = url.searchParams.has('except');
  return answer(locals, url.searchParams, (id) => isExcept !== picked.has(id));
};
