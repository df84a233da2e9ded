import { error } from '@sveltejs/kit';
import { z } from 'zod';
import { isColumnName } from '$core/facts';
import { isDrawable } from '$lib/maps/facts';
import { encodeSome, partsOfSnapshot, writePart } from '$core/snapshot';
import { selectPages } from '$server/index';
import { streamedBytes } from '../../../../../streamed';
import { errorTexts } from '../../../../../texts';
import { crawlForView } from '../../../../../view';
import type { RequestHandler } from './$types';

/** Facts that are handed out at once. */
const MOST_FACTS = 20;

const query = z.object({
  facts: z
    .string()
    .default('')
    .transform((names) => names.split(',').filter(isColumnName).filter(isDrawable)),
  links: z.stringbool().default(false),
  /** A selection, whose pages are the bits of the part `marked`. */
  mark: z.string().optional(),
});

/**
 * What the pictures of a map are drawn of, for a worker of the browser: facts of all pages, their links without texts,
 * and which pages a selection holds: `?facts=url,depth&links=true&mark=indexable`. It is read from the version of the
 * crawl that the address names, so that a draft is drawn as it would be. `stored` names all parts that a snapshot has.
 */
export const GET: RequestHandler = async ({ locals, url }) => {
  const asked = query.safeParse(Object.fromEntries(url.searchParams));
  if (!asked.success) error(400, asked.error.issues[0].message);
  const { facts, links, mark } = asked.data;
  if (facts.length > MOST_FACTS) error(400, errorTexts.manyFacts(MOST_FACTS));
  if (links) await crawlForView(locals, { list: 'links', select: '' }, url.searchParams);
  const { snapshot } = await crawlForView(locals, { list: 'pages', select: mark ?? '' }, url.searchParams);
  const parts = encodeSome(snapshot, facts, links);
  parts.set('stored', new TextEncoder().encode(JSON.stringify(partsOfSnapshot)));
  if (mark !== undefined) {
    const { pages, fault } = selectPages(snapshot, mark);
    if (fault) error(400, errorTexts.unreadableSelection(fault.message));
    parts.set('marked', new Uint8Array(pages.words.buffer, pages.words.byteOffset, pages.words.byteLength));
  }
  function* pieces() {
    for (const [name, bytes] of parts) yield* writePart(name, bytes);
  }
  return new Response(streamedBytes(pieces()), { headers: { 'content-type': 'application/octet-stream' } });
};
