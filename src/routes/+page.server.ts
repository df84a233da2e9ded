import { fail, redirect } from '@sveltejs/kit';
import { settingsSchema } from '$core/settings';
import { readStartAddress } from '$core/url';
import { crawlPath } from '$lib/shell/routes';
import { addCrawl, appDatabase, newestCrawls, saveSite, siteByStart, siteNames } from '$server/index';
import type { Actions, PageServerLoad } from './$types';

/** All sites with their newest crawl, the most recently crawled first. */
export const load: PageServerLoad = async () => {
  const db = appDatabase();
  const [sites, crawls] = await Promise.all([siteNames(db), newestCrawls(db)]);
  const bySite = new Map(crawls.map((crawl) => [crawl.siteId, crawl]));
  return {
    sites: sites
      .map(({ id, start }) => {
        const newest = bySite.get(id);
        const at = newest && (newest.startedAt ?? newest.createdAt);
        return { id, start, newest: newest && { id: newest.id, state: newest.state, known: newest.known, at } };
      })
      .sort((a, b) => (b.newest?.id ?? 0) - (a.newest?.id ?? 0)),
  };
};

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
