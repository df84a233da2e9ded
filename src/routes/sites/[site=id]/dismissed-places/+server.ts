import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { appDatabase, dismissPlace } from '$server/index';
import { bodyOf } from '../../../body';
import { siteOf } from '../../../crawl';
import type { RequestHandler } from './$types';

const address = z.string().min(1).max(8192);
const asked = z.object({ source: address, target: address, dismissed: z.boolean() });

/** Dismisses a place for a link, or takes that back: `{source, target, dismissed}`. */
export const POST: RequestHandler = async ({ locals, request }) => {
  const { dismissed, ...pair } = await bodyOf(request, asked);
  await dismissPlace(appDatabase(), siteOf(locals).id, pair, dismissed);
  return json({});
};
