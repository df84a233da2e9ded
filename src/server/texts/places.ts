/** Places that could link to pages of a crawl (src/core/places), with the sources in which they stand. */
import { readBlocks } from '$core/html';
import { placesOf, showPlace } from '$core/places';
import type { FoundPlace, Place, Places } from '$core/places';
import { addressAt } from '$core/snapshot';
import type { TextIndex } from '$core/textIndex';
import type { View } from '$core/view';
import { boundedMap } from '../caches';
import type { Crawl } from '../crawls';
import { storedSource } from '../crawls/pages';
import type { Database } from '../database';
import { openSnapshot } from '../snapshots';
import { openTexts } from './texts';

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

/** A place with its words in the source. */
export interface ShownPlace extends FoundPlace {
  at: Place;
}

const READ_PAGES = 100;

/** Shows places in the sources of a crawl; those of pages that were read last are read once. */
export function placeReader(db: Database, row: Indexed, { site }: Places) {
  const read = boundedMap<number, Promise<ReturnType<typeof readBlocks> | null>>(READ_PAGES);
  const blocksOf = (page: number) => {
    let blocks = read.get(page);
    if (!blocks) {
      blocks = storedSource(db, row, addressAt(site.view, page)).then(
        (source) => source && readBlocks(source.bytes, source.charset),
      );
      read.set(page, blocks);
    }
    return blocks;
  };
  return async (found: FoundPlace): Promise<ShownPlace | null> => {
    const blocks = await blocksOf(found.source);
    const language = site.index.languages[site.languageOf(found.source)];
    for (const mentioned of blocks ? [found, ...found.also] : []) {
      const at = showPlace(blocks!, mentioned, language);
      if (at) return { ...found, ...mentioned, at };
    }
    return null;
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
