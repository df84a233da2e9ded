import { error, fail, redirect } from '@sveltejs/kit';
import { settingsSchema } from '$core/settings';
import type { CrawlSettings } from '$core/settings';
import { readStartAddress } from '$core/url';
import { crawlPath } from '$lib/shell/routes';
import {
  addCrawl,
  appDatabase,
  crawlState,
  databaseBytes,
  deleteCrawl,
  deleteSite,
  demoSettings,
  newestCrawls,
  recentCrawls,
  renameSite,
  saveSite,
  siteByStart,
  siteName,
  siteNames,
  undelete,
  UNDO_SECONDS,
  wakeDemo,
} from '$server/index';
import type { CrawlState, Database } from '$server/index';
import type { Actions, PageServerLoad } from './$types';
import { errorTexts } from './texts';
import { isError } from '$core/errors';

const MOST_RECENT = 8;
const MAX_NAME = 80;

/** What a list of crawls shows of one. */
const shownCrawl = ({ id, siteId, state, known, done, ranMs, counts, space, startedAt, createdAt }: CrawlState) => ({
  ...{ id, siteId, state, known, done, ranMs, counts, space },
  at: startedAt ?? createdAt,
});

/** All sites with their newest crawls, the most recently crawled first. */
export const load: PageServerLoad = async () => {
  const db = appDatabase();
  const [sites, crawls, recent, bytes] = await Promise.all([
    siteNames(db),
    newestCrawls(db),
    recentCrawls(db, MOST_RECENT),
    databaseBytes(db),
  ]);
  const defaults = settingsSchema.parse({ start: 'https://www.example.org/' });
  return {
    sites: sites
      .map((site) => {
        const [newest, before] = crawls.filter(({ siteId }) => siteId === site.id).map(shownCrawl);
        return { ...site, newest: newest ?? null, before: before ?? null };
      })
      .sort((a, b) => (b.newest?.id ?? 0) - (a.newest?.id ?? 0)),
    recent: recent.map(shownCrawl),
    bytes,
    undoSeconds: UNDO_SECONDS,
    defaults: { limit: defaults.limit, connections: defaults.connections },
  };
};

/** Starts a crawl and shows it. */
async function crawlAndWatch(db: Database, site: number, settings: CrawlSettings, query = ''): Promise<never> {
  redirect(303, `${crawlPath(site, await addCrawl(db, site, settings))}/watch${query}`);
}

const numberIn = (form: FormData, name: string) => {
  const text = String(form.get(name) ?? '');
  return /^\d{1,15}$/.test(text) ? Number(text) : error(400, errorTexts.missingNumber(name));
};

export const actions: Actions = {
  crawl: async ({ request }) => {
    const typed = String((await request.formData()).get('start') ?? '');
    const start = readStartAddress(typed);
    if (!start.ok) return fail(400, { fault: start.message, typed });
    const db = appDatabase();
    // A site that is known keeps its settings.
    const known = await siteByStart(db, start.address);
    const settings = known?.settings ?? settingsSchema.parse({ start: start.address });
    return crawlAndWatch(db, known?.id ?? (await saveSite(db, settings)), settings);
  },
  demo: async () => {
    const db = appDatabase();
    let port: number;
    try {
      port = await wakeDemo();
    } catch (thrown) {
      if (isError(thrown, 'operator')) return fail(503, { demoFault: thrown.message });
      throw thrown;
    }
    const settings = demoSettings(port);
    return crawlAndWatch(db, await saveSite(db, settings), settings, '?tour=1');
  },
  rename: async ({ request }) => {
    const form = await request.formData();
    const name = String(form.get('name') ?? '').trim();
    if (name.length > MAX_NAME) return fail(400, { problem: errorTexts.longName(MAX_NAME) });
    await renameSite(appDatabase(), numberIn(form, 'site'), name);
    return { renamed: true };
  },
  deleteSite: async ({ request }) => {
    const db = appDatabase();
    const site = await siteName(db, numberIn(await request.formData(), 'site'));
    if (!site) error(404, errorTexts.noSuchSite);
    return { site: site.id, at: (await deleteSite(db, site.id)).getTime() };
  },
  deleteCrawl: async ({ request }) => {
    const db = appDatabase();
    const crawl = await crawlState(db, numberIn(await request.formData(), 'crawl'));
    if (!crawl || crawl.deletedAt) error(404, errorTexts.noSuchCrawl);
    return { site: crawl.siteId, at: (await deleteCrawl(db, crawl.id)).getTime() };
  },
  undo: async ({ request }) => {
    const form = await request.formData();
    const isBack = await undelete(appDatabase(), numberIn(form, 'site'), new Date(numberIn(form, 'at')));
    return isBack ? { undone: true } : fail(410, { problem: errorTexts.tooLateToUndo });
  },
};
