import { depthBars, reachAnswer } from '$core/answers';
import { listWindow, selectPages } from '$server/index';
import { crawlWithSnapshot } from '../../../../../crawl';
import type { PageServerLoad } from './$types';

const FIRST_ROWS = 100;

export const load: PageServerLoad = async ({ params, url }) => {
  const select = url.searchParams.get('select') ?? '';
  const sort = url.searchParams.get('sort') ?? '';
  const { snapshot } = await crawlWithSnapshot(params);
  const { mask, fault } = selectPages(snapshot, select);
  return {
    answer: reachAnswer(snapshot),
    bars: depthBars(snapshot, mask),
    fault,
    list: listWindow(snapshot, select, sort, 0, FIRST_ROWS),
  };
};
