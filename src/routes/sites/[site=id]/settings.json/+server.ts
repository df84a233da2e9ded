import { error, json } from '@sveltejs/kit';
import { appDatabase, getSite } from '$server/index';
import type { RequestHandler } from './$types';

/** The settings of a site as a file, to be read in elsewhere. Secrets are not among them. */
export const GET: RequestHandler = async ({ params }) => {
  const site = await getSite(appDatabase(), Number(params.site));
  if (!site) error(404, 'There is no such site.');
  const name = new URL(site.start).host.replace(/[^\w.-]/g, '-');
  return json(
    { edgemapSettings: site.settings },
    { headers: { 'content-disposition': `attachment; filename="settings-${name}.json"` } },
  );
};
