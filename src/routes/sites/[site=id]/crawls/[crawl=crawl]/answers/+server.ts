import { answerSheetMarkdown, ruleTables } from '$core/formats';
import { crawlSettings } from '$server/index';
import { crawlWithSnapshot } from '../../../../../crawl';
import type { RequestHandler } from './$types';

/** The answer sheet as a file: `?format=md` or `csv`. */
export const GET: RequestHandler = async ({ locals, url }) => {
  const { db, crawl, snapshot } = await crawlWithSnapshot(locals, 'links');
  const { start } = await crawlSettings(db, crawl.id);
  const isCsv = url.searchParams.get('format') === 'csv';
  const text = isCsv
    ? [...ruleTables(snapshot, start)['answer_sheet.csv']].join('')
    : answerSheetMarkdown(snapshot, start);
  return new Response(text, {
    headers: {
      'content-type': isCsv ? 'text/csv; charset=utf-8' : 'text/markdown; charset=utf-8',
      'content-disposition': `attachment; filename="answer-sheet.${isCsv ? 'csv' : 'md'}"`,
    },
  });
};
