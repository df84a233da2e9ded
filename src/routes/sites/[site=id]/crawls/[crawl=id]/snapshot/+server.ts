import { error } from '@sveltejs/kit';
import { appDatabase, getCrawl, snapshotPart } from '$server/index';
import type { RequestHandler } from './$types';

/** One part of the snapshot in its binary form, for a worker of the browser: `?part=head`, `fact.depth`, `links.target`, … */
export const GET: RequestHandler = async ({ params, url }) => {
  const db = appDatabase();
  const row = await getCrawl(db, Number(params.crawl));
  if (!row || row.siteId !== Number(params.site)) error(404, 'There is no such crawl.');
  const part = await snapshotPart(db, row.id, url.searchParams.get('part') ?? 'head');
  if (!part) error(404, 'The snapshot has no such part.');
  // A crawl that goes on gets another snapshot, so that nothing is kept without asking.
  const headers = { 'content-type': 'application/octet-stream', 'cache-control': 'no-cache' };
  return new Response(new Uint8Array(part), { headers });
};
