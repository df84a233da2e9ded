import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { compareLines, folded } from '$core/compare';
import { appDatabase, comparedCrawl, pageLines } from '$server/index';
import { crawlOf } from '../../../../../crawl';
import { errorTexts } from '../../../../../texts';
import { comparisonOf } from '../../../../../view';
import type { RequestHandler } from './$types';

const query = z.object({
  page: z.string(),
  /** The address that the page had in the earlier crawl, where it is another one. */
  was: z.string().default(''),
  of: z.enum(['text', 'source']).default('text'),
});

/** More lines are not sent: nobody reads them, and `all` says how many there are. */
const MOST_LINES = 3000;

/** A page then and now, line by line: `?page=address&was=address&since=crawl&map=rules&of=text|source`. */
export const GET: RequestHandler = async ({ locals, url }) => {
  const asked = query.safeParse(Object.fromEntries(url.searchParams));
  if (!asked.success) error(400, asked.error.issues[0].message);
  const { page, was, of } = asked.data;
  const { since, map } = comparisonOf(url.searchParams);
  const db = appDatabase();
  const crawl = crawlOf(locals);
  const earlier = since === null ? null : await comparedCrawl(db, crawl, { since, map });
  if (!earlier) error(404, errorTexts.noSuchCrawl);
  const [then, now] = await Promise.all([pageLines(db, earlier, was || page, of), pageLines(db, crawl, page, of)]);
  if (!then && !now) error(404, errorTexts.noSource);
  const lines = compareLines(then ?? [], now ?? []);
  if (!lines) error(422, errorTexts.tooDifferent);
  const shown = folded(lines);
  return json({ then: then !== null, now: now !== null, lines: shown.slice(0, MOST_LINES), all: shown.length });
};
