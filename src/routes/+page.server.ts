import { fail, redirect } from '@sveltejs/kit';
import { settingsSchema } from '$core/settings';
import { readStartAddress } from '$core/url';
import { crawlPath } from '$lib/routes';
import { addCrawl, appDatabase, saveSite, siteByStart, sitesWithNewestCrawl } from '$server/index';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async () => ({
  sites: (await sitesWithNewestCrawl(appDatabase())).map(({ site, newest }) => ({
    id: site.id,
    start: site.start,
    newest,
  })),
});

export const actions: Actions = {
  default: async ({ request }) => {
    const typed = String((await request.formData()).get('start') ?? '');
    const start = readStartAddress(typed);
    if (!start.ok) return fail(400, { fault: start.message, typed });
    const db = appDatabase();
    // A site that is known keeps its settings.
    const known = await siteByStart(db, start.address);
    const settings = known?.settings ?? settingsSchema.parse({ start: start.address });
    const site = known?.id ?? (await saveSite(db, settings));
    redirect(303, `${crawlPath(site, await addCrawl(db, site, settings))}/watch`);
  },
};
