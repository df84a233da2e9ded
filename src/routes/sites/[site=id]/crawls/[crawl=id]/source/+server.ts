import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { getCrawl, appDatabase, pageSource } from '$server/index';
import type { RequestHandler } from './$types';

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
export const GET: RequestHandler = async ({ params, url }) => {
  const asked = query.safeParse(Object.fromEntries(url.searchParams));
  if (!asked.success) error(400, asked.error.issues[0].message);
  const { page, marks, from, size } = asked.data;
  const db = appDatabase();
  const row = await getCrawl(db, Number(params.crawl));
  if (!row || row.siteId !== Number(params.site)) error(404, 'There is no such crawl.');
  const found = await pageSource(db, row, page, marks, from, size);
  if (!found) error(404, 'The source of this page is not kept: it answered with no HTML, or was too large.');
  return json(found);
};
