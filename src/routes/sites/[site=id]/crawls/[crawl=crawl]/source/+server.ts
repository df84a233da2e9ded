import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { appDatabase, pageSource } from '$server/index';
import { crawlOf } from '../../../../../crawl';
import type { RequestHandler } from './$types';
import { errorTexts } from '../../../../../texts';

const query = z.object({
  page: z.string(),
  /** Places to mark, `line:column` separated by commas. */
  marks: z
    .string()
    .default('')
    .transform((text) =>
      [...text.matchAll(/(\d+):(\d+)/g)].map(([, line, column]) => ({ line: Number(line), column: Number(column) })),
    ),
  from: z.coerce.number().int().min(1).default(1),
  size: z.coerce.number().int().min(1).max(1000).default(200),
});

/** Lines of the source of a page as it was received: `?page=address&marks=line:column,…&from=line&size=lines`. */
export const GET: RequestHandler = async ({ locals, url }) => {
  const asked = query.safeParse(Object.fromEntries(url.searchParams));
  if (!asked.success) error(400, asked.error.issues[0].message);
  const { page, marks, from, size } = asked.data;
  const found = await pageSource(appDatabase(), crawlOf(locals), page, marks, from, size);
  if (!found) error(404, errorTexts.noSource);
  return json(found);
};
