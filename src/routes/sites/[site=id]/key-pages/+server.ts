import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { identify } from '$core/url';
import { appDatabase, markKeyPages, MOST_KEY_PAGES } from '$server/index';
import { bodyOf } from '../../../body';
import { siteOf } from '../../../crawl';
import { errorTexts } from '../../../texts';
import type { RequestHandler } from './$types';

const address = z.string().refine((text) => identify(text) !== null, errorTexts.noAddress);
const asked = z.object({
  addresses: z.array(address).min(1).max(MOST_KEY_PAGES, errorTexts.manyKeyPages(MOST_KEY_PAGES)),
  key: z.boolean(),
});

/** Marks pages as key pages of the site, or no longer: `{addresses, key}`. */
export const POST: RequestHandler = async ({ locals, request }) => {
  const { addresses, key } = await bodyOf(request, asked);
  const normal = addresses.map((text) => identify(text)!.address);
  const done = await markKeyPages(appDatabase(), siteOf(locals).id, normal, key);
  return done ? json({}) : error(400, errorTexts.manyKeyPages(MOST_KEY_PAGES));
};
