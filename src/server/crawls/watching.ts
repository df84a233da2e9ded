/** How crawls go, for everyone who watches: each is read once, however many watch it. */
import type { Watched } from '$core/closedSite';
import type { Database } from '../database';
import { crawlState } from './crawls';
import type { CrawlState } from './crawls';
import { watchCrawl } from './progress';

const EVERY_MS = 500;
/** What takes counting is read less often. */
const WATCH_EVERY = 4;

/** What whoever watches a crawl is told. */
export type CrawlProgress = Pick<
  CrawlState,
  'state' | 'reason' | 'request' | 'known' | 'done' | 'unanswered' | 'bytes' | 'current' | 'ranMs' | 'analysedAt'
> & { watched: Watched };

export interface Watcher {
  tell: (progress: CrawlProgress) => void;
  /** Nothing more is told: the crawl has ended, or the database does not answer. */
  end: () => void;
}

interface Watch {
  watchers: Set<Watcher>;
  last: CrawlProgress | null;
}

const watches = new Map<number, Watch>();

/** Reads how a crawl stands until it has ended or nobody watches any more. */
async function follow(db: Database, id: number, watch: Watch): Promise<void> {
  try {
    for (let n = 0; watch.watchers.size > 0; n++) {
      const row = await crawlState(db, id);
      if (!row) break;
      const { state, reason, request, known, done, unanswered, bytes, current, ranMs, analysedAt } = row;
      const watched = watch.last && n % WATCH_EVERY ? watch.last.watched : await watchCrawl(db, row);
      watch.last = { state, reason, request, known, done, unanswered, bytes, current, ranMs, analysedAt, watched };
      for (const { tell } of watch.watchers) tell(watch.last);
      // An ended crawl may still be analysed anew.
      const isMoving = state === 'waiting' || state === 'running' || state === 'paused' || watched.analysis;
      if (!isMoving) break;
      await new Promise((resolve) => setTimeout(resolve, EVERY_MS));
    }
  } catch {
    // Whoever watches asks again by itself.
  }
  watches.delete(id);
  for (const { end } of [...watch.watchers]) end();
}

/** Tells how a crawl goes, at once and then twice a second. @returns what ends it */
export function watchProgress(db: Database, id: number, watcher: Watcher): () => void {
  let watch = watches.get(id);
  if (watch) {
    watch.watchers.add(watcher);
    if (watch.last) watcher.tell(watch.last);
  } else {
    watch = { watchers: new Set([watcher]), last: null };
    watches.set(id, watch);
    void follow(db, id, watch);
  }
  const { watchers } = watch;
  return () => void watchers.delete(watcher);
}
