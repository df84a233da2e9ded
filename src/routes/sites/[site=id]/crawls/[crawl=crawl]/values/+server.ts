import { json } from '@sveltejs/kit';
import { valuesOf } from '$server/index';
import { crawlWithSnapshot } from '../../../../../crawl';
import type { RequestHandler } from './$types';

/** Known values of a fact, for whoever writes a selection: `?fact=…&begins=…`. */
export const GET: RequestHandler = async ({ locals, url }) => {
  const { snapshot } = await crawlWithSnapshot(locals, 'facts');
  return json(valuesOf(snapshot, url.searchParams.get('fact') ?? '', url.searchParams.get('begins') ?? ''));
};
