import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { findings } from '$core/findings';
import { parseLinkSelection, parseSelection } from '$core/selection';
import { addBound, appDatabase, MOST_BOUNDS, removeBound } from '$server/index';
import { bodyOf } from '../../../body';
import { siteOf } from '../../../crawl';
import { byId } from '../../../ids';
import { errorTexts } from '../../../texts';
import type { RequestHandler } from './$types';

const bound = z.object({
  name: z.string().trim().min(1, 'A name is needed.').max(120, 'A name has up to 120 characters.'),
  over: z.enum(['pages', 'links', 'finding']),
  text: z.string().trim().max(4000),
  atMost: z.number().int().min(0).max(2_000_000_000).nullable(),
});

/** Adds a bound to the watch list of the site. */
export const POST: RequestHandler = async ({ locals, request }) => {
  const { id } = siteOf(locals);
  const given = await bodyOf(request, bound);
  if (given.over === 'finding') {
    if (!findings.some((finding) => finding.id === given.text)) error(400, errorTexts.noSuchFinding);
  } else {
    const parsed = (given.over === 'pages' ? parseSelection : parseLinkSelection)(given.text);
    if (!parsed.ok) error(400, `The selection cannot be read: ${parsed.fault.message}`);
  }
  const added = await addBound(appDatabase(), id, given);
  return added === null ? error(409, errorTexts.manyBounds(MOST_BOUNDS)) : json({ id: added });
};

/** Takes a bound off the watch list. */
export const DELETE: RequestHandler = async ({ locals, request }) => {
  const { id } = await bodyOf(request, byId);
  if (!(await removeBound(appDatabase(), siteOf(locals).id, id))) error(404, errorTexts.noSuchBound);
  return json({ deleted: id });
};
