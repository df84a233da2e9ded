import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { compareLines, folded } from '$core/compare';
import { appDatabase, crawlState, pageLines } from '$server/index';
import { crawlOf } from '../../../../../crawl';
import { errorTexts } from '../../../../../texts';
import type { RequestHandler } from './$types';

const query = z.object({
  page: z.string(),
  /** The address that the page had in the earlier crawl, where it is another one. */
  was: z.string().default(''),
  since: z.coerce.number().int().min(1),
  of: z.enum(['text', 'source']).default('text'),
});

/** More lines are not sent: nobody reads them, and `all` says how many there are. */
const MOST_LINES = 3000;

/** A page then and now, line by line: `?page=address&was=address&since=crawl&of=text|source`. */
export const GET: RequestHandler = async ({ locals, url }) => {
  const asked = query.safeParse(Object.fromEntries(url.searchParams));
  if (!asked.success) error(400, asked.error.issues[0].message);
  const { page, was, since, of } = asked.data;
  const db = appDatabase();
  const crawl = crawlOf(locals);
  const earlier = await crawlState(db, since);
  if (!earlier || earlier.deletedAt) error(404, errorTexts.noSuchCrawl);
  const [then, now] = await Promise.all([pageLines(db, earlier, was || page, of), pageLines(db, crawl, page, of)]);
  if (!then && !now) error(404, errorTexts.noSource);
  const lines = compareLines(then ?? [], now ?? []);
  if (!lines) error(422, errorTexts.tooDifferent);
  const shown = folded(lines);
  return json({ then: then !== null, now: now !== null, lines: shown.slice(0, MOST_LINES), all: shown.length });
};
