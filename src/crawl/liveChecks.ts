/** Runs live checks as they are asked for, beside whatever else the worker does. */
import { setTimeout as sleep } from 'node:timers/promises';
import type { Logger } from 'pino';
import type { LiveCheckKind, LiveResults, LiveSitemap } from '$core/liveChecks';
import { settingsSchema } from '$core/settings';
import { endLiveCheck, getSite, leaseLiveCheck, LIVE_BEAT_MS, renewLiveCheck, secretsOf } from '$server/index';
import type { Database, LeasedCheck } from '$server/index';
import { openClient } from './client';
import type { Client } from './client';
import { checkSitemap } from './sitemapCheck';

const IDLE_MS = 500;
const RETRY_MS = 2000;
/** A check that takes longer is given up. */
const WHOLE_MS = 300_000;
/** Faults of a sitemap that are kept; the others are counted. */
const MOST_FAULTS = 200;

interface LiveRun {
  client: Client;
  signal: AbortSignal;
}

async function liveSitemap(address: string, { client, signal }: LiveRun): Promise<LiveSitemap> {
  const { faults, kind, entries, answer } = await checkSitemap(address, false, { client, signal });
  return { answer, kind, entries, faultCount: faults.length, faults: faults.slice(0, MOST_FAULTS) };
}

const run: { [K in LiveCheckKind]: (address: string, live: LiveRun) => Promise<LiveResults[K]> } = {
  sitemap: liveSitemap,
};

export interface LiveCheckOptions {
  db: Database;
  log: Logger;
  /** Whether loopback and private addresses may be asked. */
  allowPrivate: boolean;
  signal: AbortSignal;
}

async function runCheck({ id, siteId, kind, address }: LeasedCheck, { db, allowPrivate, signal }: LiveCheckOptions) {
  const site = await getSite(db, siteId);
  if (!site) return endLiveCheck(db, id, { fault: { code: 'internal' } });
  const whole = new AbortController();
  const giveUp = () => whole.abort(signal.reason);
  const timer = setTimeout(() => whole.abort(new DOMException('No answer in time.', 'TimeoutError')), WHOLE_MS);
  signal.addEventListener('abort', giveUp);
  const beating = setInterval(() => void renewLiveCheck(db, id).catch(() => {}), LIVE_BEAT_MS);
  const client = openClient({ settings: settingsSchema.parse(site.settings), secrets: secretsOf(site), allowPrivate });
  try {
    const result = await run[kind](address, { client, signal: whole.signal });
    // What a worker that ends leaves undone another takes up.
    if (!signal.aborted) await endLiveCheck(db, id, { result });
  } finally {
    clearTimeout(timer);
    clearInterval(beating);
    signal.removeEventListener('abort', giveUp);
    await client.agent.destroy();
  }
}

/** Takes live checks from the database and runs them, one at a time, until the signal comes. */
export async function runLiveChecks(options: LiveCheckOptions): Promise<void> {
  const { db, log, signal } = options;
  while (!signal.aborted) {
    let check: LeasedCheck | null = null;
    try {
      check = await leaseLiveCheck(db);
      if (check) await runCheck(check, options);
      else await sleep(IDLE_MS, undefined, { signal }).catch(() => {});
    } catch (error) {
      log.error({ check, error: error instanceof Error ? { message: error.message } : error }, 'live check failed');
      if (check) await endLiveCheck(db, check.id, { fault: { code: 'internal' } }).catch(() => {});
      await sleep(RETRY_MS, undefined, { signal }).catch(() => {});
    }
  }
}
