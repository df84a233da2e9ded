import { fail, redirect } from '@sveltejs/kit';
import { settingsSchema } from '$core/settings';
import { crawlPath } from '$lib/shell/routes';
import { appDatabase, crawlSettings, requestCrawl, resumeCrawl } from '$server/index';
import { crawlOf } from '../../../../../crawl';
import type { Actions } from './$types';
import { errorTexts } from '../../../../../texts';

/** The limits that may be raised when a crawl goes on. */
const limits = ['limit', 'depth', 'minutes', 'megabytes'] as const;

export const actions: Actions = {
  stop: async ({ locals }) => {
    await requestCrawl(appDatabase(), crawlOf(locals).id, 'stop');
    return { asked: 'stop' };
  },
  pause: async ({ locals }) => {
    await requestCrawl(appDatabase(), crawlOf(locals).id, 'pause');
    return { asked: 'pause' };
  },
  resume: async ({ locals, request }) => {
    const db = appDatabase();
    const crawl = crawlOf(locals);
    const form = await request.formData();
    // A limit that is not in the form stays; one that is left empty is lifted.
    const raised = limits.flatMap((name) => {
      const text = String(form.get(name) ?? '').replace(/[\s,]/g, '');
      if (!form.has(name) || (name === 'limit' && text === '')) return [];
      return [[name, text === '' ? null : Number(text)]];
    });
    const settings = settingsSchema.safeParse({
      ...(await crawlSettings(db, crawl.id)),
      ...Object.fromEntries(raised),
    });
    if (!settings.success)
      return fail(400, {
        fault: errorTexts.wholeNumber(String(settings.error.issues[0].path[0])),
      });
    if (crawl.state !== 'running' && crawl.state !== 'waiting') await resumeCrawl(db, crawl.id, settings.data);
    redirect(303, `${crawlPath(crawl.siteId, crawl.id)}/watch`);
  },
};
