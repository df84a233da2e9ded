import { fail, redirect } from '@sveltejs/kit';
import { formatOverride } from '$core/settings';
import { crawlPath } from '$lib/routes';
import { readSettingsForm } from '$lib/settingsForm';
import { addCrawl, appDatabase, getSite, saveSite, sitesWithNewestCrawl } from '$server/index';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ url }) => {
  const db = appDatabase();
  // `?like=3` begins with the settings of a site, to try again with another address.
  const like = Number(url.searchParams.get('like'));
  const model = like ? (await getSite(db, like))?.settings : undefined;
  return {
    sites: (await sitesWithNewestCrawl(db)).map(({ site, newest }) => ({ id: site.id, start: site.start, newest })),
    model: model && {
      start: model.start,
      limit: String(model.limit),
      depth: model.depth === null ? '' : String(model.depth),
      connections: String(model.connections),
      robots: model.robots as string,
      sitemaps: model.sitemaps.join('\n'),
      overrides: model.overrides.map(formatOverride).join('\n'),
      acceptCertificates: model.acceptCertificates ? 'on' : '',
    },
  };
};

export const actions: Actions = {
  default: async ({ request }) => {
    const read = readSettingsForm(await request.formData());
    if (!read.ok) return fail(400, { faults: read.faults, typed: read.typed });
    const db = appDatabase();
    const site = await saveSite(db, read.settings);
    const crawl = await addCrawl(db, site, read.settings);
    redirect(303, `${crawlPath(site, crawl)}/watch`);
  },
};
