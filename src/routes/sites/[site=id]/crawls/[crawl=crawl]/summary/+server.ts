import { json } from '@sveltejs/kit';
import { listSummaries } from '$server/index';
import { crawlForView, readableList, viewOf } from '../../../../../view';
import type { RequestHandler } from './$types';

/** The distributions of the columns of a list: the query of a view. */
export const GET: RequestHandler = async ({ locals, url }) => {
  const { view, columns } = viewOf(url.searchParams);
  const { snapshot } = await crawlForView(locals, view, url.searchParams);
  readableList(snapshot, view);
  return json(listSummaries(snapshot, view, columns));
};
