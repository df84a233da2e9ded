import { error, redirect } from '@sveltejs/kit';
import { asksForLinks, parseSelection } from '$core/selection';
import type { PartGroup } from '$core/snapshot';
import { crawlPath } from '$lib/routes';
import { appDatabase, getCrawl, openSnapshot } from '$server/index';

interface Params {
  site: string;
  crawl: string;
}

/** What a selection needs of a snapshot to be answered. */
export function needOf(select: string): PartGroup {
  const parsed = parseSelection(select);
  return parsed.ok && asksForLinks(parsed.selection) ? 'links' : 'facts';
}

/**
 * The crawl that a route names, with its snapshot; the reader is sent to watch a crawl that has none yet.
 * @param need whether its links are asked for
 */
export async function crawlWithSnapshot({ site, crawl }: Params, need: PartGroup) {
  const db = appDatabase();
  const row = await getCrawl(db, Number(crawl));
  if (!row || row.siteId !== Number(site)) error(404, 'There is no such crawl.');
  const snapshot = row.state === 'done' || row.state === 'stopped' ? await openSnapshot(db, row, need) : null;
  if (!snapshot) redirect(307, `${crawlPath(row.siteId, row.id)}/watch`);
  // Whoever looks at pages asks for their links next.
  if (need === 'facts') void openSnapshot(db, row, 'links').catch(() => {});
  return { db, row, snapshot };
}
