import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { MAX_ROBOTS_BYTES } from '$core/robots';
import { appDatabase, deleteRobotsDraft, robotsDraftBody, saveRobotsDraft } from '$server/index';
import { bodyOf } from '../../../body';
import { siteOf } from '../../../crawl';
import { byId, idIn } from '../../../ids';
import { errorTexts } from '../../../texts';
import type { RequestHandler } from './$types';

const draft = z.object({
  origin: z.string().regex(/^https?:\/\/[^/\s]+$/),
  name: z.string().trim().min(1, errorTexts.draftNeedsName).max(80, errorTexts.longName(80)),
  note: z.string().max(2000).default(''),
  body: z.string().max(2 * MAX_ROBOTS_BYTES),
});

/** Saves a version of a robots.txt: `{origin, name, note, body}`. */
export const POST: RequestHandler = async ({ locals, request }) => {
  const { id } = siteOf(locals);
  return json({ id: await saveRobotsDraft(appDatabase(), id, await bodyOf(request, draft)) });
};

/** The text of a version: `?id=…`. */
export const GET: RequestHandler = async ({ locals, url }) => {
  const body = await robotsDraftBody(
    appDatabase(),
    siteOf(locals).id,
    idIn(url.searchParams, 'id', errorTexts.noSuchVersion),
  );
  return body === null ? error(404, errorTexts.noSuchVersion) : json({ body });
};

/** Deletes a version: `{id}`. */
export const DELETE: RequestHandler = async ({ locals, request }) => {
  const { id } = await bodyOf(request, byId);
  await deleteRobotsDraft(appDatabase(), siteOf(locals).id, id);
  return json({});
};
