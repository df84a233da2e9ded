import { redirect } from '@sveltejs/kit';
import { depthBars, noRoute, reachAnswer, readerDifference, topGates, unlinkedCounts } from '$core/answers';
import { listedOf } from '$core/lists';
import { settingsSchema } from '$core/settings';
import { addressAt } from '$core/snapshot';
import { familiesOf } from '$core/traps';
import { crawlPath } from '$lib/shell/routes';
import { crawlSettings, getCrawl, orderedRows, recrawl, selectPages, trapsOf } from '$server/index';
import { crawlForView, readableList } from '../../../../../view';
import { listScreen } from '../../../../../screen';
import type { Actions, PageServerLoad } from './$types';

/** Families with fewer members are no news. */
const LARGE_FAMILY = 20;
const MOST_FAMILIES = 12;

export const load: PageServerLoad = async (event) => {
  const { db, crawl, snapshot, state, list } = await listScreen(event);
  // A selection of links picks no bars.
  const { pages } = selectPages(snapshot, listedOf(state.list) === 'pages' ? state.select : '');
  const { reader, picture } = state;
  const { thresholds } = settingsSchema.parse(await crawlSettings(db, crawl.id));
  return {
    list,
    answer: reachAnswer(snapshot, thresholds, reader),
    difference: readerDifference(snapshot),
    unlinked: unlinkedCounts(snapshot),
    bars: picture === '' ? depthBars(snapshot, pages, reader) : null,
    noRoute: picture === 'no-route' ? noRoute(snapshot) : null,
    gates: picture === 'gates' ? topGates(snapshot) : null,
    traps: picture === 'traps' ? await trapsOf(db, crawl.id) : null,
    families: picture === 'traps' ? familiesOf(snapshot, LARGE_FAMILY).slice(0, MOST_FAMILIES) : [],
  };
};

export const actions: Actions = {
  /** Fetches what is selected again, in a crawl of its own; the rest is carried over. */
  again: async ({ locals, request, url }) => {
    const select = String((await request.formData()).get('select') ?? '');
    const view = { list: 'pages', select, sort: '', by: 'section' } as const;
    const { db, crawl, snapshot } = await crawlForView(locals, view, url.searchParams);
    readableList(snapshot, view);
    const pages = orderedRows(snapshot, view);
    const addresses = Array.from(pages, (page) => addressAt(snapshot, page));
    const base = (await getCrawl(db, crawl.id))!;
    redirect(303, `${crawlPath(crawl.siteId, await recrawl(db, base, addresses))}/watch`);
  },
};
