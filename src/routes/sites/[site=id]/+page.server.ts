import { error, redirect } from '@sveltejs/kit';
import { crawlPath } from '$lib/routes';
import { addCrawl, appDatabase, crawlsOf, getSite } from '$server/index';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params }) => {
  const [newest] = await crawlsOf(appDatabase(), Number(params.site), 1);
  redirect(307, newest ? crawlPath(newest.siteId, newest.id) : '/');
};

export const actions: Actions = {
  again: async ({ params }) => {
    const db = appDatabase();
    const site = await getSite(db, Number(params.site));
    if (!site) error(404, 'There is no such site.');
    redirect(303, `${crawlPath(site.id, await addCrawl(db, site.id, site.settings))}/watch`);
  },
};
