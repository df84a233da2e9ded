import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { appDatabase, saveMeantStructure } from '$server/index';
import { bodyOf } from '../../../body';
import { siteOf } from '../../../crawl';
import { errorTexts } from '../../../texts';
import type { RequestHandler } from './$types';

const MOST_CHARACTERS = 2_000_000;
const asked = z.object({ text: z.string().max(MOST_CHARACTERS, errorTexts.longText(MOST_CHARACTERS)) });

/** Keeps the structure that the site is meant to have: `{text}`. */
export const POST: RequestHandler = async ({ locals, request }) => {
  const { text } = await bodyOf(request, asked);
  await saveMeantStructure(appDatabase(), siteOf(locals).id, text);
  return json({});
};
