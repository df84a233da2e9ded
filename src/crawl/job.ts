import { crawlStore, getCrawl, heartbeat, makeSnapshot, markEnded, markStarted, releaseJob } from '$server/index';
import type { Database, Ending, Progress } from '$server/index';
import { runCrawl } from './crawl';

const BEAT_MS = 500;

/** Why a running crawl is interrupted: a person stopped it, this program ends, or another worker has the job. */
export type Interruption = 'stop' | 'shutdown' | 'lost';

export interface JobRun {
  db: Database;
  crawlId: number;
  /** The owner that holds the lease. */
  owner: string;
  /** Aborted with an {@link Interruption} as its reason. */
  signal: AbortSignal;
  onProgress?: (progress: Progress) => void;
}

/**
 * Runs a leased crawl to its end: crawl, snapshot, record of the ending.
 * @returns how it ended; null when it was given back or taken over, to be continued elsewhere
 */
export async function runJob({ db, crawlId, owner, signal, onProgress }: JobRun): Promise<Ending | null> {
  const row = await getCrawl(db, crawlId);
  if (!row) throw new Error(`Crawl ${crawlId} is gone.`);
  await markStarted(db, crawlId);
  const interrupt = new AbortController();
  const forward = () => interrupt.abort(signal.reason);
  signal.addEventListener('abort', forward);
  if (signal.aborted) forward();

  const { tell, ended } = runCrawl({
    settings: row.settings,
    store: crawlStore(db, crawlId, row.siteId),
    signal: interrupt.signal,
  });
  let beating = false;
  const beat = async () => {
    if (beating) return;
    beating = true;
    try {
      onProgress?.(tell());
      const { held, stopRequested } = await heartbeat(db, crawlId, owner, tell());
      if (!held) interrupt.abort('lost' satisfies Interruption);
      else if (stopRequested) interrupt.abort('stop' satisfies Interruption);
    } catch {
      // The crawl itself meets a lost database too, and says so.
    } finally {
      beating = false;
    }
  };
  const timer = setInterval(beat, BEAT_MS);
  try {
    const ending = await ended;
    await beat();
    const interruption = interrupt.signal.aborted ? (interrupt.signal.reason as Interruption) : null;
    if (interruption === 'lost') return null;
    if (interruption === 'shutdown') {
      await releaseJob(db, crawlId);
      return null;
    }
    if (ending.state !== 'failed') await makeSnapshot(db, { ...row, limited: ending.limited });
    await markEnded(db, crawlId, ending);
    return ending;
  } finally {
    clearInterval(timer);
    signal.removeEventListener('abort', forward);
  }
}
