import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { appDatabase, dismiss } from '$server/index';
import { bodyOf } from '../../../body';
import { siteOf } from '../../../crawl';
import type { RequestHandler } from './$types';

const asked = z.object({
  kind: z.enum(['place', 'wording']),
  /** The address of the page that would link, or the words of the link. */
  what: z.string().max(8192),
  target: z.string().min(1).max(8192),
  dismissed: z.boolean(),
});

/** Dismisses a place for a link, or keeps a wording as it is; or takes that back: `{kind, what, target, dismissed}`. */
export const POST: RequestHandler = async ({ locals, request }) => {
  const { dismissed, ...one } = await bodyOf(request, asked);
  await dismiss(appDatabase(), siteOf(locals).id, one, dismissed);
  return json({});
};
