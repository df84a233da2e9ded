import { depthBars, reachAnswer } from '$core/answers';
import { redirect } from '@sveltejs/kit';
import { addressAt } from '$core/snapshot';
import { crawlPath } from '$lib/routes';
import { listWindow, orderedPages, recrawl, selectPages } from '$server/index';
import { crawlWithSnapshot, needOf } from '../../../../../crawl';
import type { Actions, PageServerLoad } from './$types';

const FIRST_ROWS = 100;

export const load: PageServerLoad = async ({ params, url }) => {
  const select = url.searchParams.get('select') ?? '';
  const sort = url.searchParams.get('sort') ?? '';
  const { snapshot } = await crawlWithSnapshot(params, needOf(select));
  const { pages, fault } = selectPages(snapshot, select);
  return {
    answer: reachAnswer(snapshot),
    bars: depthBars(snapshot, pages),
    fault,
    list: listWindow(snapshot, select, sort, 0, FIRST_ROWS),
  };
};

export const actions: Actions = {
  /** Fetches what is selected again, in a crawl of its own; the rest is carried over. */
  again: async ({ params, request }) => {
    const select = String((await request.formData()).get('select') ?? '');
    const { db, row, snapshot } = await crawlWithSnapshot(params, needOf(select));
    const addresses = Array.from(orderedPages(snapshot, select, ''), (page) => addressAt(snapshot, page));
    redirect(303, `${crawlPath(row.siteId, await recrawl(db, row, addresses))}/watch`);
  },
};
