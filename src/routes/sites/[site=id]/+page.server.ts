import { error, redirect } from '@sveltejs/kit';
import { crawlPath } from '$lib/shell/routes';
import { addCrawl, appDatabase, crawlsOf, getSite } from '$server/index';
import { siteOf } from '../../crawl';
import type { Actions, PageServerLoad } from './$types';
import { errorTexts } from '../../texts';

export const load: PageServerLoad = async ({ locals }) => {
  const [newest] = await crawlsOf(appDatabase(), siteOf(locals).id, 1);
  redirect(307, newest ? crawlPath(newest.siteId, newest.id) : '/');
};

export const actions: Actions = {
  again: async ({ locals }) => {
    const db = appDatabase();
    const site = await getSite(db, siteOf(locals).id);
    if (!site) error(404, errorTexts.noSuchSite);
    redirect(303, `${crawlPath(site.id, await addCrawl(db, site.id, site.settings))}/watch`);
  },
};
