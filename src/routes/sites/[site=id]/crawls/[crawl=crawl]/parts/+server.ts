import { error } from '@sveltejs/kit';
import { isError } from '$core/errors';
import { writePart } from '$core/snapshot';
import { partNames, readParts } from '$server/index';
import { crawlWithSnapshot } from '../../../../../crawl';
import { streamedBytes } from '../../../../../streamed';
import { errorTexts } from '../../../../../texts';
import type { RequestHandler } from './$types';

const handedOut = /^(head|files|phrases|outside|(fact|links)\.[a-z_]+(\.(codes|values|common))?)$/;

/**
 * Parts of the snapshot of a crawl, for a worker of the browser that works something out of them:
 * `?names=a,b,c&analysed=time`, all of the analysis of that time, the last one when it is left out. The first part,
 * `stored`, says which it is, and names all parts that there are.
 */
export const GET: RequestHandler = async ({ locals, url }) => {
  const names = (url.searchParams.get('names') ?? '').split(',').filter(Boolean);
  if (!names.every((name) => handedOut.test(name))) error(400, errorTexts.noSuchPart);
  const { db, crawl } = await crawlWithSnapshot(locals, 'facts');
  const asked = url.searchParams.get('analysed');
  const row = { id: crawl.id, analysedAt: asked ? new Date(asked) : crawl.analysedAt };
  const all = await partNames(db, row).catch((thrown) => {
    throw isError(thrown, 'analysed_anew') ? error(409, thrown.message) : thrown;
  });
  const stored = new TextEncoder().encode(JSON.stringify({ names: all, analysed: row.analysedAt }));
  async function* pieces() {
    yield* writePart('stored', stored);
    for await (const [name, bytes] of readParts(
      db,
      row,
      names.filter((name) => all.includes(name)),
    ))
      yield* writePart(name, bytes);
  }
  return new Response(streamedBytes(pieces()), { headers: { 'content-type': 'application/octet-stream' } });
};
