import { redirect } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ parent }) => {
  const { site, crawl } = await parent();
  const screen = crawl.state === 'done' || crawl.state === 'stopped' ? 'overview' : 'watch';
  redirect(307, `/sites/${site.id}/crawls/${crawl.id}/${screen}`);
};
