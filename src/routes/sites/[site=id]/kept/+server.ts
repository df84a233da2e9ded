import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { parseLinkSelection, parseSelection } from '$core/selection';
import { appDatabase, forgetSelection, getSite, keepSelection } from '$server/index';
import type { RequestHandler } from './$types';

const name = z.string().trim().min(1, 'A name is needed.').max(80, 'A name has up to 80 characters.');
const kept = z.object({ name, over: z.enum(['pages', 'links']), text: z.string() });

async function bodyOf<T>(request: Request, schema: z.ZodType<T>): Promise<T> {
  const asked = schema.safeParse(await request.json().catch(() => null));
  if (!asked.success) error(400, asked.error.issues[0].message);
  return asked.data;
}

/** Keeps a selection of the site under a name. */
export const POST: RequestHandler = async ({ params, request }) => {
  const db = appDatabase();
  if (!(await getSite(db, Number(params.site)))) error(404, 'There is no such site.');
  const selection = await bodyOf(request, kept);
  const parsed = (selection.over === 'pages' ? parseSelection : parseLinkSelection)(selection.text);
  if (!parsed.ok) error(400, `The selection cannot be read: ${parsed.fault.message}`);
  await keepSelection(db, Number(params.site), selection);
  return json({ kept: selection.name });
};

/** Forgets a kept selection. */
export const DELETE: RequestHandler = async ({ params, request }) => {
  const { name: gone } = await bodyOf(request, z.object({ name }));
  await forgetSelection(appDatabase(), Number(params.site), gone);
  return json({ forgotten: gone });
};
