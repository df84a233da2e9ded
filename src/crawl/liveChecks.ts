/** Runs live checks as they are asked for, beside whatever else the worker does. */
import { setTimeout as sleep } from 'node:timers/promises';
import type { Logger } from 'pino';
import type { LiveCheckKind, LiveQuestions, LiveResults, LiveRobots, LiveSitemap, LiveVariant } from '$core/liveChecks';
import type { Message } from '$core/messages';
import { parseRobots } from '$core/robots';
import type { RobotsFile } from '$core/robots';
import { otherWritings } from '$core/rules';
import { settingsSchema } from '$core/settings';
import type { CrawlSettings } from '$core/settings';
import { identify, originOf } from '$core/url';
import { isRedirectStatus } from '$core/verdict';
import { endLiveCheck, getSite, leaseLiveCheck, LIVE_BEAT_MS, renewLiveCheck, secretsOf } from '$server/index';
import type { Database, LeasedCheck } from '$server/index';
import { openClient } from './client';
import type { Client } from './client';
import { checkEdits } from './editCheck';
import { headerOf } from './fetch';
import type { ParseOutcome } from './parserPool';
import { fetchWith } from './retry';
import type { Fetch } from './retry';
import { fetchRobots } from './robots';
import { sharedLimiter } from './sharedLimiter';
import { checkSitemap } from './sitemapCheck';
import { timeLimit } from './timeLimit';

const IDLE_MS = 500;
const RETRY_MS = 2000;
/** Requests for what no crawl asks for: a few a second are polite. */
const MOST_A_SECOND = 5;
/** A check that takes longer is given up. */
const WHOLE_MS = 300_000;
/** Faults of a sitemap that are kept; the others are counted. */
const MOST_FAULTS = 200;

interface LiveRun {
  settings: CrawlSettings;
  client: Client;
  /** At the rate that the settings and the host allow. */
  fetch: Fetch;
  signal: AbortSignal;
}

async function liveSitemap(address: string, { client, signal }: LiveRun): Promise<LiveSitemap> {
  const { faults, kind, entries, answer } = await checkSitemap(address, false, { client, signal });
  return { answer, kind, entries, faultCount: faults.length, faults: faults.slice(0, MOST_FAULTS) };
}

/** Fetches robots.txt as a crawl does. */
async function liveRobots(address: string, { settings, fetch }: LiveRun): Promise<LiveRobots> {
  const parse = (text: string): Promise<ParseOutcome<RobotsFile>> =>
    Promise.resolve({ ok: true, parsed: parseRobots(text) });
  const { answer, fault, body } = await fetchRobots(originOf(address), { fetch, parse, token: settings.token });
  return { answer, fault, body };
}

/** What the other ways of writing an address answer, one after the other. */
async function liveVariants(address: string, { fetch }: LiveRun): Promise<LiveVariant[]> {
  const found: LiveVariant[] = [];
  for (const one of otherWritings(address)) {
    const fetched = await fetch(one.address, { method: 'HEAD', wanted: () => false });
    if (!fetched.ok) {
      const fault: Message = { code: 'error', error: fetched.error, tries: fetched.tries };
      found.push({ ...one, status: null, fault, leadsTo: null });
      continue;
    }
    const { status, headers } = fetched.answer;
    const location = isRedirectStatus(status) ? headerOf(headers, 'location') : null;
    const leadsTo = location === null ? null : (identify(location, one.address)?.address ?? null);
    found.push({ ...one, status, fault: null, leadsTo });
  }
  return found;
}

type Run<K extends LiveCheckKind> = (
  address: string,
  live: LiveRun,
  asked: LiveQuestions[K],
) => Promise<LiveResults[K]>;
const run: { [K in LiveCheckKind]: Run<K> } = {
  sitemap: liveSitemap,
  robots: liveRobots,
  variants: liveVariants,
  edits: (_, live, asked) => checkEdits(asked, live),
};

export interface LiveCheckOptions {
  db: Database;
  log: Logger;
  /** Whether loopback and private addresses may be asked. */
  allowPrivate: boolean;
  signal: AbortSignal;
}

async function runCheck(
  { id, siteId, kind, address, asked }: LeasedCheck,
  { db, allowPrivate, signal }: LiveCheckOptions,
) {
  const site = await getSite(db, siteId);
  if (!site) return endLiveCheck(db, id, { fault: { code: 'internal' } });
  const whole = timeLimit(WHOLE_MS, signal);
  const beating = setInterval(() => void renewLiveCheck(db, id).catch(() => {}), LIVE_BEAT_MS);
  const settings = settingsSchema.parse(site.settings);
  const client = openClient({ settings, secrets: secretsOf(site), allowPrivate });
  const limiter = sharedLimiter(
    db,
    kind === 'edits' ? settings.rate : Math.min(settings.rate ?? MOST_A_SECOND, MOST_A_SECOND),
  );
  const fetch = fetchWith(client, { limiter, retries: settings.retries, signal: whole.signal });
  try {
    const runKind = run[kind] as Run<LiveCheckKind>;
    const result = await runKind(address, { settings, client, fetch, signal: whole.signal }, asked);
    // What a worker that ends leaves undone another takes up.
    if (!signal.aborted) await endLiveCheck(db, id, { result });
  } finally {
    whole.clear();
    clearInterval(beating);
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
