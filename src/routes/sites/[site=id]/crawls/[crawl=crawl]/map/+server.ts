import { error } from '@sveltejs/kit';
import { z } from 'zod';
import { isColumnName } from '$core/facts';
import { partsOfWays } from '$core/maps';
import { readers } from '$core/reach';
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
  /** Whose links. */
  ways: z.enum(readers).optional(),
  /** A selection, whose pages are the bits of the part `marked`. */
  mark: z.string().optional(),
});

/**
 * What the pictures of a map are drawn of, for a worker of the browser: facts of all pages, the links as a reader walks
 * them, and which pages a selection holds: `?facts=url,depth&ways=visitor&mark=indexable`. It is read from the version
 * of the crawl that the address names, so that a draft is drawn as it would be. `stored` names all parts of a snapshot.
 */
export const GET: RequestHandler = async ({ locals, url }) => {
  const asked = query.safeParse(Object.fromEntries(url.searchParams));
  if (!asked.success) error(400, asked.error.issues[0].message);
  const { facts, ways, mark } = asked.data;
  if (facts.length > MOST_FACTS) error(400, errorTexts.manyFacts(MOST_FACTS));
  const { snapshot } = await crawlForView(
    locals,
    { list: ways ? 'links' : 'pages', select: mark ?? '' },
    url.searchParams,
  );
  const parts = encodeSome(snapshot, facts);
  if (ways) for (const [name, bytes] of partsOfWays(snapshot, ways)) parts.set(name, bytes);
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
