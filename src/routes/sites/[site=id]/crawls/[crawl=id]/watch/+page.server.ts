import { redirect } from '@sveltejs/kit';
import { crawlPath } from '$lib/routes';
import { appDatabase, continueCrawl, askCrew, getCrawl } from '$server/index';
import type { Actions } from './$types';

export const actions: Actions = {
  stop: async ({ params }) => {
    await askCrew(appDatabase(), Number(params.crawl), 'stop');
    return { stopping: true };
  },
  continue: async ({ params }) => {
    const db = appDatabase();
    const id = Number(params.crawl);
    const row = await getCrawl(db, id);
    if (row && row.state !== 'running' && row.state !== 'waiting') await continueCrawl(db, id);
    redirect(303, `${crawlPath(Number(params.site), id)}/watch`);
  },
};
