import { error, redirect } from '@sveltejs/kit';
import { crawlPath } from '$lib/routes';
import { appDatabase, getCrawl, openSnapshot } from '$server/index';

interface Params {
  site: string;
  crawl: string;
}

/** The crawl that a route names, with its snapshot; the reader is sent to watch a crawl that has none yet. */
export async function crawlWithSnapshot({ site, crawl }: Params) {
  const db = appDatabase();
  const row = await getCrawl(db, Number(crawl));
  if (!row || row.siteId !== Number(site)) error(404, 'There is no such crawl.');
  const snapshot = row.state === 'done' || row.state === 'stopped' ? await openSnapshot(db, row) : null;
  if (!snapshot) redirect(307, `${crawlPath(row.siteId, row.id)}/watch`);
  return { db, row, snapshot };
}
