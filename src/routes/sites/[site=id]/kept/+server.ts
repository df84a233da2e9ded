import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { appDatabase, crawlState, keepCrawls, pinCrawl, pruneCrawls } from '$server/index';
import { bodyOf } from '../../../body';
import { siteOf } from '../../../crawl';
import { anId } from '../../../ids';
import { errorTexts } from '../../../texts';
import type { RequestHandler } from './$types';

const keep = z.object({ keep: z.number().int().min(1).max(10_000).nullable() });
const pin = z.object({ crawl: anId, pinned: z.boolean() });

/** How many ended crawls the site keeps; those beyond are deleted. */
export const PUT: RequestHandler = async ({ locals, request }) => {
  const db = appDatabase();
  const { id } = siteOf(locals);
  await keepCrawls(db, id, (await bodyOf(request, keep)).keep);
  return json({ deleted: await pruneCrawls(db, id) });
};

/** Keeps a crawl of the site for good, or no longer. */
export const POST: RequestHandler = async ({ locals, request }) => {
  const db = appDatabase();
  const { crawl, pinned } = await bodyOf(request, pin);
  if ((await crawlState(db, crawl))?.siteId !== siteOf(locals).id) error(404, errorTexts.noSuchCrawl);
  await pinCrawl(db, crawl, pinned);
  return json({ pinned });
};
