import { error, text } from '@sveltejs/kit';
import { z } from 'zod';
import { writeNumbers } from '$core/numbers';
import { orderedRows } from '$server/index';
import { crawlForView, readableList, viewOf } from '../../../../../view';
import type { RequestHandler } from './$types';

const range = z.object({
  from: z.coerce.number().int().min(0),
  to: z.coerce.number().int().min(0),
});

/**
 * The numbers of the rows between two places of a list, both included, as in `1,4-9`: the query of a view and
 * `&from=N&to=N`.
 */
export const GET: RequestHandler = async ({ locals, url }) => {
  const asked = range.safeParse(Object.fromEntries(url.searchParams));
  if (!asked.success) error(400, asked.error.issues[0].message);
  const { view } = viewOf(url.searchParams);
  const { snapshot } = await crawlForView(locals, view, url.searchParams);
  readableList(snapshot, view);
  return text(writeNumbers(orderedRows(snapshot, view).subarray(asked.data.from, asked.data.to + 1)));
};
