/** What a person sees of a crawl while it runs. */
import type { RowDataPacket } from 'mysql2';
import type { FetchError, RobotsRule } from '$core/facts';
import { closedSite } from '$core/closedSite';
import type { Example, Watched } from '$core/closedSite';
import type { Message } from '$core/messages';
import type { Database } from '../database';
import { hostLimits } from '../hosts';
import { diskTrouble } from '../disk';
import { analysisProgress, crawlTrouble } from '../jobs';
import { ASIDE_RANK, EXTERNAL_RANK, RESOURCE_RANK, UNLINKED_RANK } from './ranks';

const NEWEST = 12;
const EXAMPLES = 40;
const MOST_DEPTHS = 12;

function waitingAt(rank: number): Message {
  if (rank >= ASIDE_RANK) return { code: 'waiting_aside' };
  if (rank >= EXTERNAL_RANK) return { code: 'waiting_outside' };
  if (rank >= RESOURCE_RANK) return { code: 'waiting_resources' };
  if (rank >= UNLINKED_RANK) return { code: 'waiting_unlinked' };
  return rank === 0 ? { code: 'waiting_start' } : { code: 'waiting_clicks', clicks: rank };
}

/** Puts ranks together that are called the same. */
function waitingOf(rows: readonly { rank: number; n: number }[]): Watched['waiting'] {
  const sums = new Map<string, Watched['waiting'][number]>();
  for (const { rank, n } of rows) {
    const what = waitingAt(rank);
    const key = JSON.stringify(what);
    sums.set(key, { what, n: (sums.get(key)?.n ?? 0) + n });
  }
  return [...sums.values()].slice(0, MOST_DEPTHS);
}

/** What a tally counts, as far as it counts an outcome (src/core/watch/closed.ts). */
function outcomeOf(kind: string): { what: Message; bad: boolean } | null {
  const [of, detail] = kind.split(' ');
  if (of === 'blocked') return { what: { code: 'outcome_blocked' }, bad: true };
  if (of === 'error') return { what: { code: 'outcome_error', error: detail as FetchError }, bad: true };
  const status = Number(detail);
  return of === 'status' ? { what: { code: 'outcome_status', status }, bad: status >= 400 } : null;
}

/** The rule is stored as JSON, which the driver hands over as text. */
const asExample = (row: RowDataPacket): Example => ({
  ...(row as Example),
  robotsRule: row.robotsRule === null ? null : (JSON.parse(row.robotsRule as string) as RobotsRule),
});

async function newestPages(db: Database, crawlId: number): Promise<Example[]> {
  const [rows] = await db.$client.query<RowDataPacket[]>(
    `select u.text as address, p.status, p.error, p.robots_rule as robotsRule, p.html, p.noindex, p.page_rules as pageRules,
            p.redirect_to as redirectTo, p.fetched_at as fetchedAt
       from page p join url u on u.id = p.url_id where p.crawl_id = ? and p.carried = 0
      order by p.fetched_at desc, p.url_id desc limit ${EXAMPLES}`,
    [crawlId],
  );
  return rows.map(asExample);
}

async function talliesOf(db: Database, crawlId: number): Promise<Map<string, number>> {
  const [rows] = await db.$client.query<RowDataPacket[]>('select kind, n from tally where crawl_id = ?', [crawlId]);
  return new Map(rows.map(({ kind, n }) => [kind as string, n as number]));
}

/** Whether a site is closed to a crawl; null when it is not. */
export async function closedWarning(db: Database, crawl: { id: number; done: number }): Promise<Message | null> {
  const [tallies, newest] = [await talliesOf(db, crawl.id), await newestPages(db, crawl.id)];
  // Pages closed by robots.txt were never fetched, and so are never among the newest.
  if ((tallies.get('blocked') ?? 0) > 0) newest.push(...(await someBlocked(db, crawl.id)));
  return closedSite(tallies, crawl.done, newest);
}

async function someBlocked(db: Database, crawlId: number): Promise<Example[]> {
  const [rows] = await db.$client.query<RowDataPacket[]>(
    `select u.text as address, p.robots_rule as robotsRule, p.status, p.error, p.html, p.noindex, p.page_rules as pageRules, p.redirect_to as redirectTo, p.fetched_at as fetchedAt
       from page p join url u on u.id = p.url_id
      where p.crawl_id = ? and p.fetched_at is null and p.robots_rule is not null limit 1`,
    [crawlId],
  );
  return rows.map(asExample);
}

/** Everything the watching screen shows besides the counts. */
export async function watchCrawl(db: Database, crawl: { id: number; done: number }): Promise<Watched> {
  const query = async <T>(sql: string) =>
    (await db.$client.query<RowDataPacket[]>(sql, [crawl.id]))[0] as unknown as T[];
  const waiting =
    'select rank, count(*) as n from frontier where crawl_id = ? and done = 0 and cut = 0 and host_left = 0 group by rank order by rank';
  const [newest, tallies] = [await newestPages(db, crawl.id), await talliesOf(db, crawl.id)];
  const [{ traps }] = await query<{ traps: number }>('select count(*) as traps from trap where crawl_id = ?');
  const [{ workers }] = await query<{ workers: number }>(
    'select count(*) as workers from crawl_worker where crawl_id = ? and lease_until >= current_timestamp(3)',
  );
  const [{ sitemaps }] = await query<{ sitemaps: number }>(
    'select count(*) as sitemaps from sitemap_file where crawl_id = ? and waiting = 1',
  );
  return {
    waiting: [
      ...waitingOf(await query(waiting)),
      ...(sitemaps ? [{ what: { code: 'waiting_sitemaps' as const }, n: sitemaps }] : []),
    ],
    outcomes: [...tallies]
      .sort(([, a], [, b]) => b - a)
      .flatMap(([kind, n]) => {
        const outcome = outcomeOf(kind);
        return outcome ? [{ ...outcome, n }] : [];
      }),
    held: (await hostLimits(db)).flatMap(({ host, wait, reason }) => (reason ? [{ host, wait, reason }] : [])),
    newest: newest
      .slice(0, NEWEST)
      .map(({ address, status, error, robotsRule }) => ({ address, status, error, blocked: robotsRule !== null })),
    warning: await closedWarning(db, crawl),
    trouble: (await crawlTrouble(db, crawl.id)) ?? (await diskTrouble()),
    traps,
    workers,
    analysis: await analysisProgress(db, crawl.id),
  };
}
