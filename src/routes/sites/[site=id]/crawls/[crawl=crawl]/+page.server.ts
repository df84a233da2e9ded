import { redirect } from '@sveltejs/kit';
import { crawlPath } from '$lib/shell/routes';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ parent }) => {
  const { site, crawl } = await parent();
  // Of what is planned only the draft says something.
  if (crawl.planned) redirect(307, `${crawlPath(site.id, crawl.id, 'drafted')}/draft`);
  const screen = crawl.state === 'done' || crawl.state === 'stopped' ? 'overview' : 'watch';
  redirect(307, `/sites/${site.id}/crawls/${crawl.id}/${screen}`);
};
