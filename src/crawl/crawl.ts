import { setTimeout as sleep } from 'node:timers/promises';
import { thousands } from '$core/numbers';
import { scopeOf } from '$core/scope';
import type { CrawlSettings } from '$core/settings';
import { addressParts, originOf } from '$core/url';
import { fetchErrorText, isRedirectStatus } from '$core/verdict';
import { ASIDE_RANK, inRuns, outlastingOutage, UNLINKED_RANK } from '$server/index';
import type { CrawlStore, Ending, Frontier, PageResult, TrapReview } from '$server/index';
import type { Client } from './client';
import type { Member } from './member';
import type { Pace } from './pace';
import { readSitemaps } from './sitemaps';

/** How often whoever leads looks whether the others of the crew are done with a rank. */
const OTHERS_MS = 50;
const SEED_RUN = 1000;

export interface CrawlRun {
  settings: CrawlSettings;
  /** Whether only a selection is fetched again; the rest was carried over. */
  selectionOnly: boolean;
  member: Member;
  store: CrawlStore;
  frontier: Frontier;
  traps: TrapReview;
  client: Client;
  pace: Pace;
  /** Tells the crew at which rank to work. */
  onRank: (rank: number) => Promise<unknown>;
  /** Whether a page of HTML was found among the start pages. */
  startIsRead: () => Promise<boolean>;
  /** Ends the crawl early; what is under way is given up and stays in the frontier. */
  signal: AbortSignal;
}

/** Why the start page cannot be crawled, in words for the person who gave it; null when it can. */
function startFault(
  { turn, blockedBy, status, error, contentType, html, redirectTo }: PageResult,
  inside: (address: string) => boolean,
) {
  const { address } = turn;
  const { host } = addressParts(address);
  if (error) return `${address} could not be read. ${fetchErrorText[error]} Check the address, and that ${host} is up.`;
  if (blockedBy)
    return `robots.txt of ${host} closes the start page: ${blockedBy}. Start elsewhere, have the rule changed, or look past robots rules.`;
  if (redirectTo && !inside(redirectTo))
    return `${address} redirects to ${redirectTo}, which is another site. Start from there instead.`;
  if (redirectTo) return null;
  if (status !== null && isRedirectStatus(status))
    return `${address} answers ${status}, a redirect that names no address.`;
  if (status === 401)
    return `${address} asks for a user and a password (401). Give them in the settings, under basic authentication.`;
  if (status !== null && status >= 400)
    return `${address} answers ${status}. Check the address; a crawl begins with a page that can be read.`;
  if (!html)
    return `${address} is ${contentType ?? 'of no known type'}, not an HTML page. Start from a page that links to others.`;
  return null;
}

/**
 * Leads the crawl of a site, breadth-first. Everything of one rank is fetched, by the whole crew, before the next begins,
 * so the depths at which addresses are found are exact. May be called again for a crawl that was interrupted.
 */
export async function leadCrawl(run: CrawlRun): Promise<Ending> {
  const { settings, selectionOnly, member, store, frontier, traps, client, pace, signal } = run;
  const { inside, keeps, identify } = scopeOf(settings);
  const stopped: Ending = { state: 'stopped', reason: 'It was stopped before everything was fetched.', limited: false };

  const workAt = async (rank: number) => {
    await run.onRank(rank);
    await member.work(rank);
    while (!signal.aborted && (await outlastingOutage(() => frontier.othersHold(rank)))) await sleep(OTHERS_MS);
  };

  const listedRank = (address: string) => (keeps(address).keeps ? UNLINKED_RANK : ASIDE_RANK);
  const readNamedSitemaps = async (): Promise<void> => {
    const named = settings.sitemapsFromRobots ? (await member.robots(settings.start)).sitemaps : [];
    const addresses = named.flatMap(({ address }) => identify(address, settings.start)?.address ?? []);
    const all = [...new Set([...addresses, ...settings.sitemaps])];
    await readSitemaps(all, settings.usualSitemaps ? [originOf(settings.start)] : [], {
      client,
      insisting: { pace, retries: settings.retries, signal },
      identify,
      inside,
      onEntries: (sitemap, entries) => {
        const found = entries.map(({ loc }) => ({ address: loc, rank: listedRank(loc), hops: 0 }));
        return outlastingOutage(() => store.saveListings(sitemap, entries, found));
      },
      onRead: (outcome) => outlastingOutage(() => store.saveSitemap(outcome)),
    });
  };

  const seed = async (addresses: readonly string[], rank: number) => {
    for (const part of inRuns(addresses, SEED_RUN)) await outlastingOutage(() => store.seed(part, rank));
  };
  if (!selectionOnly) {
    await seed([settings.start, ...settings.starts], 0);
    const lists = settings.lists.filter(inside);
    for (const rank of [UNLINKED_RANK, ASIDE_RANK])
      await seed(
        lists.filter((address) => listedRank(address) === rank),
        rank,
      );
  }
  await outlastingOutage(traps.resume);
  await workAt(0);
  if (signal.aborted) return stopped;
  if (!(await outlastingOutage(run.startIsRead))) {
    const last = member.lastOfStart();
    const reason = (last && startFault(last, inside)) ?? `${settings.start} leads to no page that can be read.`;
    return { state: 'failed', reason, limited: false };
  }
  let sitemapFailure: { cause: unknown } | null = null;
  const sitemapsRead = selectionOnly
    ? Promise.resolve()
    : readNamedSitemaps().catch((cause: unknown) => void (sitemapFailure = { cause }));
  let limited = false;
  for (;;) {
    if (signal.aborted) return stopped;
    const next = () => outlastingOutage(() => frontier.nextRank(settings.depth, limited));
    let rank = await next();
    if (rank === null || rank >= UNLINKED_RANK) {
      // Before addresses that nothing links to have their turn, all of them should be known.
      await sitemapsRead;
      if (sitemapFailure) throw (sitemapFailure as { cause: unknown }).cause;
      rank = await next();
    }
    if (rank === null) {
      // At the limit, and with nothing left that could have been fetched, nothing was limited.
      const more = limited && (await outlastingOutage(() => frontier.nextRank(settings.depth))) !== null;
      const reason = more ? `It ended at its limit of ${thousands(settings.limit)} pages.` : null;
      return { state: 'done', reason, limited: more };
    }
    await outlastingOutage(() => traps.before(rank));
    await workAt(rank);
    if (signal.aborted) return stopped;
    await outlastingOutage(() => traps.after());
    // What is only checked goes on when no more pages may be fetched.
    limited = await outlastingOutage(() => frontier.atLimit(settings.limit));
  }
}
