import { error, json } from '@sveltejs/kit';
import { dossierOf } from '$core/answers';
import { pageOf } from '$core/snapshot';
import { crawlWithSnapshot } from '../../../../../crawl';
import type { RequestHandler } from './$types';

/** The dossier of one page: `?page=address`. */
export const GET: RequestHandler = async ({ params, url }) => {
  const { snapshot } = await crawlWithSnapshot(params, 'links');
  const page = pageOf(snapshot, url.searchParams.get('page') ?? '');
  if (page < 0) error(404, 'This crawl does not know the page.');
  return json(dossierOf(snapshot, page));
};
