import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { editOf } from '$core/draft';
import { editSource } from '$core/handOver';
import { readBlocks } from '$core/html';
import { givenHtml, LEAST_SCORE, placeRow, takenLinks } from '$core/places';
import type { FoundPlace, Places } from '$core/places';
import { scopeOf } from '$core/scope';
import { settingsSchema } from '$core/settings';
import { addressAt, factAt, pageOf } from '$core/snapshot';
import type { View } from '$core/view';
import {
  appDatabase,
  dismissalsOf,
  firstShown,
  getSite,
  inSlices,
  openPlaces,
  placeReader,
  shownIn,
} from '$server/index';
import { bodyOf } from '../../../../../body';
import { crawlOf, crawlWithSnapshot, draftOver } from '../../../../../crawl';
import { errorTexts } from '../../../../../texts';
import type { RequestHandler } from './$types';

const query = z.object({
  /** The page that is to be linked to, or the one that is to link. */
  to: z.string().default(''),
  from: z.string().default(''),
  /** Whether words in code may become links; as the settings of the site say without. */
  code: z.stringbool().optional(),
  /** Whether pages count that link from their content already. */
  linked: z.stringbool().default(false),
  least: z.coerce.number().min(0).max(1).default(LEAST_SCORE),
  size: z.coerce.number().int().min(1).max(400).default(40),
});
/** Longer texts are to be given in parts. */
const MOST_TEXT = 200_000;
const MOST_GIVEN = 100;
const givenText = z.object({
  text: z.string().min(1).max(MOST_TEXT),
  /** Links to put into it, on words of a sentence. */
  links: z
    .array(
      z.object({ target: z.string().max(8192), anchor: z.string().max(1000), sentence: z.string().max(MOST_TEXT) }),
    )
    .max(MOST_GIVEN)
    .default([]),
});

const standing = (view: View, page: number) =>
  (['pages_linking_text', 'depth', 'share'] as const).map((name) => factAt(view, name, page) as number | null);

async function opened(locals: App.Locals) {
  const db = appDatabase();
  const crawl = crawlOf(locals);
  const { snapshot: view } = await crawlWithSnapshot(locals, 'links');
  const places = await openPlaces(db, crawl, view);
  if (!places) error(409, errorTexts.textsNotIndexed);
  return { db, crawl, view, places, settings: settingsSchema.parse((await getSite(db, crawl.siteId))!.settings) };
}

function* placesFor(
  places: Places,
  page: number,
  { to, code, linked, least }: z.infer<typeof query>,
): Generator<void, FoundPlace[]> {
  const options = { inCode: code, linkedToo: linked, least };
  return to ? (yield* places.to([page], options)).get(page)! : yield* places.from(page, options);
}

/** Places for links to a page, or from one, the best first: `?to=address&code=true&least=0.2`. */
export const GET: RequestHandler = async ({ locals, request, url }) => {
  const read = query.safeParse(Object.fromEntries(url.searchParams));
  if (!read.success) error(400, read.error.issues[0].message);
  const { db, crawl, view, places, settings } = await opened(locals);
  const asked = { ...read.data, code: read.data.code ?? settings.linksInCode };
  const page = pageOf(view, asked.to || asked.from);
  if (page < 0) error(404, errorTexts.noSuchPage);
  const dismissed = await dismissalsOf(db, crawl.siteId, 'place');
  const drafted = await draftOver(locals);
  const taken = takenLinks(drafted?.draft.edits ?? []);
  const found = await inSlices(placesFor(places, page, asked), request.signal);
  const left = found.filter(
    ({ source, target }) => !dismissed.get(addressAt(view, target))?.has(addressAt(view, source)),
  );
  const shown = await firstShown(placeReader(db, crawl, places), left, asked.size);
  return json({
    before: standing(view, page),
    after: drafted && taken.length ? standing(drafted.view, page) : null,
    code: asked.code,
    dismissed: found.length - left.length,
    more: shown.length === asked.size,
    places: shown.map((place) => placeRow(view, place, taken)),
  });
};

/**
 * Places for links in a text that is not on the site: `{text, links}`. Answers with the text as HTML, with the links
 * that are asked for on words of its sentences.
 */
export const POST: RequestHandler = async ({ locals, request }) => {
  const { text, links } = await bodyOf(request, givenText);
  const { view, places, settings } = await opened(locals);
  const html = givenHtml(text);
  const bytes = new TextEncoder().encode(html);
  const { blocks, markup } = readBlocks(bytes, 'utf-8');
  const edits = links.map(({ sentence, ...link }) => editOf('add_link', settings.start, { ...link, value: sentence }));
  const edited = editSource({ address: settings.start, bytes, charset: 'utf-8' }, edits, scopeOf(settings)).source;
  const looked = places.inText(blocks, { inCode: settings.linksInCode });
  const { found, language } = await inSlices(looked, request.signal);
  const shown = found.flatMap((one) => shownIn({ blocks, markup }, one, language) ?? []).slice(0, MOST_GIVEN);
  shown.sort((a, b) => a.at.line - b.at.line || a.at.column - b.at.column);
  return json({ html: edited?.after ?? html, places: shown.map((place) => placeRow(view, place, [])) });
};
