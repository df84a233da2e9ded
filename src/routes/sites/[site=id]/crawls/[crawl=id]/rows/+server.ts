import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { listWindow } from '$server/index';
import { crawlWithSnapshot, needOf } from '../../../../../crawl';
import type { RequestHandler } from './$types';

const query = z.object({
  select: z.string().default(''),
  sort: z.string().default(''),
  from: z.coerce.number().int().min(0).default(0),
  size: z.coerce.number().int().min(1).max(500).default(100),
});

/** A window of the list of pages: `?select=…&sort=fact[:desc]&from=N&size=N`. */
export const GET: RequestHandler = async ({ params, url }) => {
  const asked = query.safeParse(Object.fromEntries(url.searchParams));
  if (!asked.success) error(400, asked.error.issues[0].message);
  const { select, sort, from, size } = asked.data;
  const { snapshot } = await crawlWithSnapshot(params, needOf(select));
  return json(listWindow(snapshot, select, sort, from, size));
};
