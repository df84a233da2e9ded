/** Indexes the texts of an ended crawl, from the sources of its pages. */
import { readBlocks } from '$core/html';
import { pageOf } from '$core/snapshot';
import { GOOD_PLACES_PART, goodPlacesPart, openTextIndex, textIndexBuilder } from '$core/textIndex';
import type { TextParts } from '$core/textIndex';
import type { View } from '$core/view';
import { firstSeenIn, noneSeen, packFirstSeen } from '$core/wordings';
import { GOOD_SCORE, pagesInNeed, placesOf, targetBatches } from '$core/places';
import {
  endJob,
  FIRST_SEEN_PART,
  getCrawl,
  inSlices,
  measureSpace,
  noteStep,
  openSnapshot,
  previousCrawl,
  readFirstSeen,
  renewLease,
  storedPages,
  storeTexts,
} from '$server/index';
import type { CrawlState, Database, Lease } from '$server/index';
import { heartbeat } from './heartbeat';
import { isError } from '$core/errors';

/** How often it is told how far it is. */
const TELL_PAGES = 100;
/** Words that are looked at for all places. */
const MOST_WORDS = 50_000_000;

export interface TextsRun {
  db: Database;
  lease: Lease;
  /** Gives the job back. */
  signal?: AbortSignal;
}

/** Reads the texts of a crawl into the parts of an index. */
async function readTexts({ db, lease, signal }: TextsRun, view: View): Promise<TextParts> {
  const builder = textIndexBuilder();
  for await (const { address, language, bytes, charset } of storedPages(db, lease.crawlId)) {
    signal?.throwIfAborted();
    const page = pageOf(view, address);
    if (page < 0) continue;
    const pages = builder.add({ page, language, blocks: readBlocks(bytes, charset).blocks });
    if (pages % TELL_PAGES === 0) await noteStep(db, lease, 'texts', pages, view.count);
  }
  return builder.finish();
}

/** Counts the good places for links to each page that has few; of the first ones, where that is too much. */
async function countPlaces({ db, lease, signal }: TextsRun, view: View, parts: TextParts, inCode: boolean) {
  const places = placesOf(view, openTextIndex(parts));
  const batches = targetBatches(places, pagesInNeed(view), MOST_WORDS);
  const targets = batches.flat().length;
  const counts = new Map<number, number>();
  for (const batch of batches) {
    const found = places.to(batch, { least: GOOD_SCORE, inCode });
    for (const [page, of] of await inSlices(found, signal)) counts.set(page, of.length);
    await noteStep(db, lease, 'places', counts.size, targets);
  }
  return counts;
}

/** Since when links have their words, by what the crawl before has handed on. */
async function firstSeenOf({ db }: TextsRun, row: CrawlState, view: View): Promise<Uint8Array> {
  const earlier = await previousCrawl(db, row);
  const before = (earlier && (await readFirstSeen(db, earlier.id))) ?? noneSeen;
  return packFirstSeen(firstSeenIn(view, before, Math.floor((row.startedAt ?? row.createdAt).getTime() / 1000)));
}

/**
 * Indexes the texts of a crawl, as its leased job asks for. Stores nothing when another worker has taken over, or when
 * the signal comes.
 */
export async function indexTexts(run: TextsRun): Promise<void> {
  const { db, lease } = run;
  const ended = new AbortController();
  const signal = run.signal ? AbortSignal.any([run.signal, ended.signal]) : ended.signal;
  const keepLease = heartbeat(async () => void ((await renewLease(db, lease)) || ended.abort()));
  try {
    const row = await getCrawl(db, lease.crawlId);
    const view = row && (await openSnapshot(db, row));
    if (view) {
      const parts = await readTexts({ ...run, signal }, view);
      const counts = await countPlaces({ ...run, signal }, view, parts, row.settings.linksInCode);
      const added: [string, Uint8Array][] = [
        [GOOD_PLACES_PART, goodPlacesPart(counts)],
        [FIRST_SEEN_PART, await firstSeenOf(run, row, view)],
      ];
      await storeTexts(db, lease, new Map([...parts, ...added]), row.analysedAt);
      await measureSpace(db, row.id);
    }
    await endJob(db, lease);
  } catch (error) {
    if (run.signal?.aborted) await endJob(db, lease, 'waiting').catch(() => {});
    else if (!ended.signal.aborted && !isError(error, 'lease_lost')) throw error;
  } finally {
    await keepLease();
  }
}
