/** Analyses a crawl while it runs, so that its screens can be opened on what it has found so far. */
import { setTimeout as sleep } from 'node:timers/promises';
import { crawlState } from '$server/index';
import type { Crawl, Database, Lease } from '$server/index';
import { analyseCrawl } from './analysis';

/** When a running crawl is analysed. */
const INTERVALS = {
  /** How often it is looked whether the time has come. */
  lookMs: 1000,
  /** A crawl that takes no longer has ended before anyone asks. */
  firstMs: 15_000,
  /** When one is that fetches so fast that it needs the whole processor: most of those have ended by then. */
  fastMs: 60_000,
  apartMs: 20_000,
  /** Pages a second that are fast; slower crawls wait for hosts, and an analysis holds nothing up. */
  fastRate: 50,
};
const LEAST_PAGES = 30;
/** So many times longer than an analysis takes, the crawl goes on undisturbed. */
const TIMES_LONGER = 10;
/** What was analysed is analysed again when there is so much more. */
const GROWTH = 1.05;
/** Larger crawls need the memory for themselves. */
const MOST_KNOWN = 100_000;

/**
 * Begins to analyse a running crawl again and again, at intervals that grow with its size.
 * @returns what ends it; it resolves when nothing more is written
 */
export function analyseAlong(db: Database, lease: Lease, row: Crawl, intervals = INTERVALS): () => Promise<void> {
  const controller = new AbortController();
  const ended = along(db, lease, row, intervals, controller.signal);
  return async () => {
    controller.abort();
    await ended;
  };
}

async function along(
  db: Database,
  lease: Lease,
  row: Crawl,
  { lookMs, firstMs, fastMs, apartMs, fastRate }: typeof INTERVALS,
  signal: AbortSignal,
): Promise<void> {
  const start = performance.now();
  let next = start + firstMs;
  let analysed = 0;
  while (!signal.aborted) {
    await sleep(lookMs, undefined, { signal }).catch(() => {});
    if (signal.aborted || performance.now() < next) continue;
    const began = performance.now();
    try {
      const now = await crawlState(db, lease.crawlId);
      if (!now || now.known > MOST_KNOWN || now.done < Math.max(LEAST_PAGES, GROWTH * analysed)) continue;
      const ran = began - start;
      if (analysed === 0 && ran < fastMs && now.done > (fastRate * ran) / 1000) continue;
      await analyseCrawl(db, lease, row, { left: 'queued', signal });
      analysed = now.done;
    } catch {
      // The crawl itself meets what is wrong too, and deals with it.
    }
    const took = performance.now() - began;
    next = performance.now() + Math.max(apartMs, TIMES_LONGER * took);
  }
}
