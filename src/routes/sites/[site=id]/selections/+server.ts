import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { parseLinkSelection, parseSelection } from '$core/selection';
import { appDatabase, deleteSelection, saveSelection } from '$server/index';
import { bodyOf } from '../../../body';
import { siteOf } from '../../../crawl';
import type { RequestHandler } from './$types';

const name = z.string().trim().min(1, 'A name is needed.').max(80, 'A name has up to 80 characters.');
const selection = z.object({ name, over: z.enum(['pages', 'links']), text: z.string() });

/** Saves a selection of the site under a name. */
export const POST: RequestHandler = async ({ locals, request }) => {
  const { id } = siteOf(locals);
  const given = await bodyOf(request, selection);
  const parsed = (given.over === 'pages' ? parseSelection : parseLinkSelection)(given.text);
  if (!parsed.ok) error(400, `The selection cannot be read: ${parsed.fault.message}`);
  await saveSelection(appDatabase(), id, given);
  return json({ saved: given.name });
};

/** Deletes a saved selection. */
export const DELETE: RequestHandler = async ({ locals, request }) => {
  const { name: gone } = await bodyOf(request, z.object({ name }));
  await deleteSelection(appDatabase(), siteOf(locals).id, gone);
  return json({ deleted: gone });
};
