import { error } from '@sveltejs/kit';
import { appDatabase, crawlsOf, getCrawl, getSite } from '$server/index';
import type { LayoutServerLoad } from './$types';

export const load: LayoutServerLoad = async ({ params, depends }) => {
  depends('crawl:state');
  const db = appDatabase();
  const [site, crawl] = await Promise.all([getSite(db, Number(params.site)), getCrawl(db, Number(params.crawl))]);
  if (!site || !crawl || crawl.siteId !== site.id) error(404, 'There is no such crawl.');
  const crawls = (await crawlsOf(db, site.id, 12)).reverse();
  return {
    site: { id: site.id, start: site.start },
    crawl,
    crawls: crawls.map(({ id, state, known, startedAt, createdAt }) => ({
      id,
      state,
      known,
      at: startedAt ?? createdAt,
    })),
  };
};
