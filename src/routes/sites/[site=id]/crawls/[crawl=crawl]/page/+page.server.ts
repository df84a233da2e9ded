import { error } from '@sveltejs/kit';
import { pageOf } from '$core/snapshot';
import { crawlWithSnapshot, localsOf } from '../../../../../crawl';
import type { PageServerLoad } from './$types';
import { errorTexts } from '../../../../../texts';

export const load: PageServerLoad = async (event) => {
  const { snapshot } = await crawlWithSnapshot(localsOf(event), 'facts');
  if (pageOf(snapshot, event.url.searchParams.get('page') ?? '') < 0) error(404, errorTexts.unknownPage);
};
