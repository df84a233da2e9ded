import { pagesCsv } from '$core/formats';
import { orderedPages } from '$server/index';
import { crawlWithSnapshot, needOf } from '../../../../../crawl';
import type { RequestHandler } from './$types';

/** The pages of a selection as CSV, in the order of the list. */
export const GET: RequestHandler = async ({ params, url }) => {
  const select = url.searchParams.get('select') ?? '';
  const { row, snapshot } = await crawlWithSnapshot(params, needOf(select));
  const pages = orderedPages(snapshot, select, url.searchParams.get('sort') ?? '');
  const records = pagesCsv(snapshot, pages);
  const encoder = new TextEncoder();
  const body = new ReadableStream<Uint8Array>({
    pull(controller) {
      let piece = '';
      while (piece.length < 65_536) {
        const { done, value } = records.next();
        if (done) {
          controller.enqueue(encoder.encode(piece));
          return controller.close();
        }
        piece += value;
      }
      controller.enqueue(encoder.encode(piece));
    },
  });
  return new Response(body, {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': `attachment; filename="pages-${new URL(row.settings.start).hostname}-${row.id}.csv"`,
    },
  });
};
