/** Places that could link to pages of a crawl (src/core/places), with the sources in which they stand. */
import { readBlocks } from '$core/html';
import { placesOf, showPlace } from '$core/places';
import type { FoundPlace, Places, ShownPlace } from '$core/places';
import { addressAt } from '$core/snapshot';
import type { TextIndex } from '$core/textIndex';
import type { View } from '$core/view';
import { boundedMap } from '../caches';
import type { Crawl } from '../crawls';
import { storedSource } from '../crawls/pages';
import type { Database } from '../database';
import { openSnapshot } from '../snapshots';
import { openTexts } from './texts';

type Read = ReturnType<typeof readBlocks>;
type Indexed = Pick<Crawl, 'id' | 'siteId' | 'analysedAt'>;

/** By index, for the view that was asked for last: reading a site anew takes longer than a question. */
const kept = new WeakMap<TextIndex, { view: View; places: Places }>();

/** Places of a view whose pages are those of a crawl; null when its texts are not indexed. */
export async function openPlaces(db: Database, row: Indexed, view?: View): Promise<Places | null> {
  const [of, index] = [view ?? (await openSnapshot(db, row)), await openTexts(db, row)];
  if (!of || !index) return null;
  const known = kept.get(index);
  if (known?.view === of) return known.places;
  const places = placesOf(of, index);
  kept.set(index, { view: of, places });
  return places;
}

const READ_PAGES = 100;

/** Reads the blocks of a crawl's pages from their sources; those of pages that were read last are read once. */
export function blockReader(db: Database, row: Indexed, view: View) {
  const read = boundedMap<number, Promise<Read | null>>(READ_PAGES);
  return (page: number) => {
    let blocks = read.get(page);
    if (!blocks) {
      blocks = storedSource(db, row, addressAt(view, page)).then(
        (source) => source && readBlocks(source.bytes, source.charset),
      );
      read.set(page, blocks);
    }
    return blocks;
  };
}

/** A place by the first of its mentions that can be shown in the blocks of its page; null where none can. */
export function shownIn(blocks: Read, found: FoundPlace, language: string): ShownPlace | null {
  for (const mentioned of [found, ...found.also]) {
    const at = showPlace(blocks, mentioned, language);
    if (at) return { ...found, ...mentioned, at };
  }
  return null;
}

/** Shows places in the sources of a crawl. */
export function placeReader(db: Database, row: Indexed, { site }: Places) {
  const blocksOf = blockReader(db, row, site.view);
  return async (found: FoundPlace): Promise<ShownPlace | null> => {
    const blocks = await blocksOf(found.source);
    return blocks && shownIn(blocks, found, site.index.languages[site.languageOf(found.source)]);
  };
}

/** The first of some places that can be shown, in their order. */
export async function firstShown(
  show: (found: FoundPlace) => Promise<ShownPlace | null>,
  found: readonly FoundPlace[],
  limit: number,
): Promise<ShownPlace[]> {
  const shown: ShownPlace[] = [];
  for (const one of found) {
    if (shown.length === limit) break;
    const place = await show(one);
    if (place) shown.push(place);
  }
  return shown;
}
