import { redirect } from '@sveltejs/kit';
import { depthBars, noRoute, reachAnswer, readerDifference, topGates, unlinkedCounts } from '$core/answers';
import { listedOf } from '$core/lists';
import { sentence } from '$core/messages';
import { compareStructure, readOutline } from '$core/outline';
import { settingsSchema } from '$core/settings';
import { addressAt } from '$core/snapshot';
import { familiesOf } from '$core/traps';
import { crawlPath } from '$lib/shell/routes';
import { crawlSettings, getCrawl, meantStructureOf, orderedRows, recrawl, selectPages, trapsOf } from '$server/index';
import { crawlWithSnapshot, siteOf } from '../../../../../crawl';
import { crawlForView, readableList } from '../../../../../view';
import { listScreen } from '../../../../../screen';
import type { Actions, PageServerLoad } from './$types';

/** Families with fewer members are no news. */
const LARGE_FAMILY = 20;
const MOST_FAMILIES = 12;

/** Lines of an outline with faults, and pages that nobody meant, that are told. */
const MOST_FAULTS = 20;
const MOST_EXTRA = 200;

/** What the site was meant to be, beside what was crawled. */
async function meantBeside(locals: App.Locals) {
  const { db, crawl, snapshot: view } = await crawlWithSnapshot(locals, 'links');
  const { start } = siteOf(locals);
  const text = await meantStructureOf(db, crawl.siteId);
  const outline = readOutline(text, start);
  return {
    text,
    faults: outline.faults.slice(0, MOST_FAULTS).map(({ line, message }) => ({ line, text: sentence(message) })),
    faultCount: outline.faults.length,
    comparison: compareStructure(view, outline, MOST_EXTRA),
  };
}

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
    meant: picture === 'meant' ? await meantBeside(event.locals) : null,
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
