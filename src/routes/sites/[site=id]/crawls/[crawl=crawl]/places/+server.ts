import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { LEAST_SCORE } from '$core/places';
import { addressAt, factAt, pageOf } from '$core/snapshot';
import type { View } from '$core/view';
import { appDatabase, dismissalsOf, firstShown, inSlices, openPlaces, placeReader } from '$server/index';
import { crawlOf, crawlWithSnapshot, draftOver } from '../../../../../crawl';
import { errorTexts } from '../../../../../texts';
import type { RequestHandler } from './$types';

const query = z.object({
  /** The page that is to be linked to. */
  to: z.string().min(1),
  /** Whether words in code may become links. */
  code: z.stringbool().default(false),
  least: z.coerce.number().min(0).max(1).default(LEAST_SCORE),
  size: z.coerce.number().int().min(1).max(200).default(40),
});

const standing = (view: View, page: number) =>
  ['pages_linking_text', 'depth', 'share'].map((name) => factAt(view, name as 'depth', page) as number | null);

/** Places for links to a page, the best first: `?to=address&code=true&least=0.2`. */
export const GET: RequestHandler = async ({ locals, request, url }) => {
  const asked = query.safeParse(Object.fromEntries(url.searchParams));
  if (!asked.success) error(400, asked.error.issues[0].message);
  const { to, code, least, size } = asked.data;
  const db = appDatabase();
  const crawl = crawlOf(locals);
  const { snapshot: view } = await crawlWithSnapshot(locals, 'links');
  const target = pageOf(view, to);
  if (target < 0) error(404, errorTexts.noSuchPage);
  const places = await openPlaces(db, crawl, view);
  if (!places) error(409, errorTexts.textsNotIndexed);
  const dismissed = (await dismissalsOf(db, crawl.siteId, 'place')).get(to);
  const drafted = await draftOver(locals);
  const taken = new Map(
    (drafted?.draft.edits ?? [])
      .filter(({ op, target, on }) => op === 'add_link' && target === to && on)
      .map(({ source, id }) => [source, id]),
  );
  const found = (await inSlices(places.to([target], { inCode: code, least }), request.signal)).get(target)!;
  const left = found.filter(({ source }) => !dismissed?.has(addressAt(view, source)));
  const shown = await firstShown(placeReader(db, crawl, places), left, size);
  return json({
    before: standing(view, target),
    after: drafted && taken.size ? standing(drafted.view, target) : null,
    dismissed: found.length - left.length,
    places: shown.map(({ source, at, score, shareGain, relatedness, phrase, others }) => ({
      ...at,
      source: addressAt(view, source),
      depth: factAt(view, 'depth', source),
      section: factAt(view, 'section', source),
      taken: taken.get(addressAt(view, source)) ?? null,
      names: phrase.text,
      from: phrase.source,
      score,
      shareGain,
      relatedness,
      others: others
        .slice(0, 5)
        .map((page) => ({ address: addressAt(view, page), title: factAt(view, 'title', page) })),
    })),
  });
};
