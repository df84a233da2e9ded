import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { listOf, listWindow } from '$server/index';
import { beforeOf } from '../../../../../crawl';
import { crawlForView, viewOf } from '../../../../../view';
import type { RequestHandler } from './$types';

const window = z.object({
  from: z.coerce.number().int().min(0).default(0),
  size: z.coerce.number().int().min(0).max(500).default(100),
});

/**
 * A window of a list: the query of a view and `&from=N&size=N`; with size 0 how many rows it has, and what is wrong.
 */
export const GET: RequestHandler = async ({ locals, url }) => {
  const asked = window.safeParse(Object.fromEntries(url.searchParams));
  if (!asked.success) error(400, asked.error.issues[0].message);
  const { view, columns } = viewOf(url.searchParams);
  const { snapshot } = await crawlForView(locals, view, url.searchParams);
  const { from, size } = asked.data;
  const { fault } = listOf(snapshot, view);
  return json(
    { ...listWindow(snapshot, view, columns, from, size, beforeOf(locals, snapshot)), fault },
    { status: fault ? 400 : 200 },
  );
};
