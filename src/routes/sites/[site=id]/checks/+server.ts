import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { addressesOf } from '$core/draft';
import { liveCheckKinds } from '$core/liveChecks';
import type { EditCheck } from '$core/liveChecks';
import { identify } from '$core/url';
import { appDatabase, askLiveCheck, crawlState, currentDraft, hasWorker, liveChecksOf } from '$server/index';
import { bodyOf } from '../../../body';
import { draftableCrawl, siteOf } from '../../../crawl';
import { anId } from '../../../ids';
import { errorTexts } from '../../../texts';
import type { RequestHandler } from './$types';

/** Pages that are asked for at once, for a person who waits. */
const MOST_PAGES = 500;

const asked = z.object({
  kind: z.enum(liveCheckKinds),
  address: z
    .string()
    .max(2048)
    .transform((text) => identify(text)?.address ?? ''),
});

/** The edits of the current draft that count, and their pages. */
async function editsToCheck(siteId: number, crawlId: number): Promise<EditCheck> {
  const db = appDatabase();
  const [crawl, draft] = [await crawlState(db, crawlId), await currentDraft(db, siteId)];
  if (!crawl || crawl.siteId !== siteId || crawl.deletedAt) error(404, errorTexts.noSuchCrawl);
  const over = await draftableCrawl(crawl);
  if (!over || !draft) error(409, errorTexts.crawlNotDraftable);
  const edits = draft.edits.filter(({ on }) => on);
  const addresses = addressesOf(edits, over.view, over.settings);
  if (addresses.length > MOST_PAGES) error(400, errorTexts.manyPagesToCheck(MOST_PAGES));
  return { edits, addresses };
}

/** Asks a worker to check an address of the site now: `{kind, address}`; of edits over which crawl, too. */
export const POST: RequestHandler = async ({ locals, request }) => {
  const { id } = siteOf(locals);
  const { kind, address, crawl } = await bodyOf(request, asked.extend({ crawl: anId.optional() }));
  if (!address) error(400, errorTexts.noAddress);
  if (kind === 'edits' && crawl === undefined) error(400, errorTexts.noSuchCrawl);
  const db = appDatabase();
  if (!(await hasWorker(db))) error(503, errorTexts.noWorker);
  const check =
    kind === 'edits'
      ? await askLiveCheck(db, id, kind, address, await editsToCheck(id, crawl!))
      : await askLiveCheck(db, id, kind, address, null);
  return json({ id: check });
};

/** How the newest check of an address stands: `?kind=…&address=…`. */
export const GET: RequestHandler = async ({ locals, url }) => {
  const { id } = siteOf(locals);
  const given = asked.safeParse(Object.fromEntries(url.searchParams));
  if (!given.success || !given.data.address) error(400, errorTexts.noAddress);
  const { kind, address } = given.data;
  const check = (await liveChecksOf(appDatabase(), id, kind, [address])).get(address);
  return check ? json(check) : error(404, errorTexts.noSuchCheck);
};
