import { error } from '@sveltejs/kit';
import { settingsFile } from '$core/settings';
import { appDatabase, getSite } from '$server/index';
import { siteOf } from '../../../crawl';
import type { RequestHandler } from './$types';
import { errorTexts } from '../../../texts';

/** The settings of a site as a file. */
export const GET: RequestHandler = async ({ locals }) => {
  const site = await getSite(appDatabase(), siteOf(locals).id);
  if (!site) error(404, errorTexts.noSuchSite);
  const name = new URL(site.start).host.replace(/[^\w.-]/g, '-');
  return new Response(settingsFile(site.settings), {
    headers: {
      'content-type': 'application/json',
      'content-disposition': `attachment; filename="settings-${name}.json"`,
    },
  });
};
