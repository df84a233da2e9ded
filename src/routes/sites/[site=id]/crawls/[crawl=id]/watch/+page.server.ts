import { error, fail, redirect } from '@sveltejs/kit';
import { settingsSchema } from '$core/settings';
import { crawlPath } from '$lib/routes';
import { appDatabase, askCrew, continueCrawl, getCrawl } from '$server/index';
import type { Actions } from './$types';

/** The limits that may be raised when a crawl goes on. */
const limits = ['limit', 'depth', 'minutes', 'megabytes'] as const;

async function crawlOf(params: { site: string; crawl: string }) {
  const db = appDatabase();
  const row = await getCrawl(db, Number(params.crawl));
  if (row?.siteId !== Number(params.site)) error(404, 'There is no such crawl.');
  return { db, row };
}

export const actions: Actions = {
  stop: async ({ params }) => {
    const { db, row } = await crawlOf(params);
    await askCrew(db, row.id, 'stop');
    return { asked: 'stop' };
  },
  pause: async ({ params }) => {
    const { db, row } = await crawlOf(params);
    await askCrew(db, row.id, 'pause');
    return { asked: 'pause' };
  },
  continue: async ({ params, request }) => {
    const { db, row } = await crawlOf(params);
    const form = await request.formData();
    // A limit that is not in the form stays; one that is left empty is lifted.
    const raised = limits.flatMap((name) => {
      const text = String(form.get(name) ?? '').replace(/[\s,]/g, '');
      if (!form.has(name) || (name === 'limit' && text === '')) return [];
      return [[name, text === '' ? null : Number(text)]];
    });
    const settings = settingsSchema.safeParse({ ...row.settings, ...Object.fromEntries(raised) });
    if (!settings.success)
      return fail(400, {
        fault: `The crawl goes on with whole numbers only: ${String(settings.error.issues[0].path[0])} is not one.`,
      });
    if (row.state !== 'running' && row.state !== 'waiting') await continueCrawl(db, row.id, settings.data);
    redirect(303, `${crawlPath(row.siteId, row.id)}/watch`);
  },
};
