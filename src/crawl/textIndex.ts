/** Indexes the texts of an ended crawl, from the sources of its pages. */
import { readBlocks } from '$core/html';
import { pageOf } from '$core/snapshot';
import { GOOD_PLACES_PART, goodPlacesPart, openTextIndex, textIndexBuilder } from '$core/textIndex';
import type { TextParts } from '$core/textIndex';
import type { View } from '$core/view';
import { GOOD_SCORE, pagesInNeed, placesOf } from '$core/places';
import {
  endJob,
  getCrawl,
  measureSpace,
  noteStep,
  openSnapshot,
  renewLease,
  storedPages,
  storeTexts,
} from '$server/index';
import type { Database, Lease } from '$server/index';
import { isError } from '$core/errors';

/** How often it is told how far it is. */
const TELL_PAGES = 100;

/** Pages whose places are looked for together, and words that are looked at for all of them. */
const TOGETHER = 100;
const MOST_WORDS = 50_000_000;

/** Counts the good places for links to each page that has few; null when another worker has taken over. */
async function countPlaces(
  db: Database,
  lease: Lease,
  view: View,
  parts: TextParts,
): Promise<Map<number, number> | null> {
  const index = openTextIndex(parts);
  const places = placesOf(view, index);
  // The first ones need them most; of others it is seen when they are looked at.
  const passes = Math.max(1, Math.floor(MOST_WORDS / Math.max(1, index.words)));
  const targets = pagesInNeed(view).slice(0, passes * TOGETHER);
  const counts = new Map<number, number>();
  for (let at = 0; at < targets.length; at += TOGETHER) {
    for (const [page, found] of places.to(targets.slice(at, at + TOGETHER), { least: GOOD_SCORE }))
      counts.set(page, found.length);
    await noteStep(db, lease, 'places', counts.size, targets.length);
    if (!(await renewLease(db, lease))) return null;
  }
  return counts;
}

/** Indexes the texts of a crawl, as its leased job asks for. Does nothing when another worker has taken over. */
export async function indexTexts(db: Database, lease: Lease): Promise<void> {
  try {
    const row = await getCrawl(db, lease.crawlId);
    const view = row && (await openSnapshot(db, row));
    if (view) {
      const builder = textIndexBuilder();
      for await (const { address, language, bytes, charset } of storedPages(db, row.id)) {
        const page = pageOf(view, address);
        if (page < 0) continue;
        builder.add({ page, language, blocks: readBlocks(bytes, charset).blocks });
        const { pages } = builder.counts();
        if (pages % TELL_PAGES !== 0) continue;
        await noteStep(db, lease, 'texts', pages, view.count);
        if (!(await renewLease(db, lease))) return;
      }
      const parts = builder.finish();
      const counts = await countPlaces(db, lease, view, parts);
      if (!counts) return;
      await storeTexts(db, lease, new Map([...parts, [GOOD_PLACES_PART, goodPlacesPart(counts)]]), row.analysedAt);
      await measureSpace(db, row.id);
    }
    await endJob(db, lease);
  } catch (error) {
    if (!isError(error, 'lease_lost')) throw error;
  }
}
