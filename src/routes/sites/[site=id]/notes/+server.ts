import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { appDatabase, deleteDateNote, saveDateNote } from '$server/index';
import { bodyOf } from '../../../body';
import { siteOf } from '../../../crawl';
import { anId, byId } from '../../../ids';
import { errorTexts } from '../../../texts';
import type { RequestHandler } from './$types';

/** The 31st of a short month is no day. */
const isDay = (day: string) => {
  const time = new Date(`${day}T00:00:00Z`);
  return !Number.isNaN(time.getTime()) && time.toISOString().startsWith(day);
};
const note = z.object({
  /** Null for a new one. */
  id: anId.nullable().default(null),
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
  const { id } = await bodyOf(request, byId);
  await deleteDateNote(appDatabase(), siteOf(locals).id, id);
  return json({ deleted: id });
};
