import { error } from '@sveltejs/kit';
import { pageOf } from '$core/snapshot';
import { crawlWithSnapshot } from '../../../../../crawl';
import type { PageServerLoad } from './$types';
import { errorTexts } from '../../../../../texts';

export const load: PageServerLoad = async ({ locals, url }) => {
  const { snapshot } = await crawlWithSnapshot(locals, 'facts');
  if (pageOf(snapshot, url.searchParams.get('page') ?? '') < 0) error(404, errorTexts.unknownPage);
};
