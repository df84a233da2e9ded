import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { liveCheckKinds } from '$core/liveChecks';
import { identify } from '$core/url';
import { appDatabase, askLiveCheck, hasWorker, liveChecksOf } from '$server/index';
import { bodyOf } from '../../../body';
import { siteOf } from '../../../crawl';
import { errorTexts } from '../../../texts';
import type { RequestHandler } from './$types';

const asked = z.object({
  kind: z.enum(liveCheckKinds),
  address: z
    .string()
    .max(2048)
    .transform((text) => identify(text)?.address ?? ''),
});

/** Asks a worker to check an address of the site now: `{kind, address}`. */
export const POST: RequestHandler = async ({ locals, request }) => {
  const { id } = siteOf(locals);
  const { kind, address } = await bodyOf(request, asked);
  if (!address) error(400, errorTexts.noAddress);
  if (!(await hasWorker(appDatabase()))) error(503, errorTexts.noWorker);
  return json({ id: await askLiveCheck(appDatabase(), id, kind, address) });
};

/** How the newest check of an address stands: `?kind=…&address=…`. */
export const GET: RequestHandler = async ({ locals, url }) => {
  const { id } = siteOf(locals);
  const given = asked.safeParse(Object.fromEntries(url.searchParams));
  if (!given.success || !given.data.address) error(400, errorTexts.noAddress);
  const { kind, address } = given.data;
  const check = (await liveChecksOf(appDatabase(), id, kind, [address])).get(address);
  return check ? json(check) : error(404, errorTexts.noSuchCheck);
};
