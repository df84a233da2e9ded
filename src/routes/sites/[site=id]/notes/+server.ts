import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { appDatabase, deleteDateNote, saveDateNote } from '$server/index';
import { bodyOf } from '../../../body';
import { siteOf } from '../../../crawl';
import { errorTexts } from '../../../texts';
import type { RequestHandler } from './$types';

const isDay = (day: string) => !Number.isNaN(Date.parse(`${day}T00:00:00Z`));
const note = z.object({
  /** Null for a new one. */
  id: z.number().int().nullable().default(null),
  day: z
    .string()
    .regex(/^\d{4}-\d{2}-\d{2}$/, errorTexts.noDay)
    .refine(isDay, errorTexts.noDay),
  text: z.string().trim().min(1, 'A note needs words.').max(300, 'A note has up to 300 characters.'),
});

/** Writes a note on a date of the site, or changes one. */
export const POST: RequestHandler = async ({ locals, request }) => {
  const given = await bodyOf(request, note);
  const id = await saveDateNote(appDatabase(), siteOf(locals).id, given);
  if (id === null) error(404, errorTexts.noSuchNote);
  return json({ id });
};

/** Removes a note. */
export const DELETE: RequestHandler = async ({ locals, request }) => {
  const { id } = await bodyOf(request, z.object({ id: z.number().int() }));
  await deleteDateNote(appDatabase(), siteOf(locals).id, id);
  return json({ deleted: id });
};
