import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { scheduleSchema } from '$core/schedule';
import { appDatabase, saveSchedule, stopSchedule } from '$server/index';
import { bodyOf } from '../../../body';
import { siteOf } from '../../../crawl';
import type { RequestHandler } from './$types';

/** Gives the site a schedule. */
export const PUT: RequestHandler = async ({ locals, request }) => {
  const given = await bodyOf(request, scheduleSchema.extend({ paused: z.boolean() }));
  await saveSchedule(appDatabase(), siteOf(locals).id, given);
  return json({ saved: true });
};

/** Takes its schedule from the site. */
export const DELETE: RequestHandler = async ({ locals }) => {
  await stopSchedule(appDatabase(), siteOf(locals).id);
  return json({ saved: true });
};
