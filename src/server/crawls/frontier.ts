/** The frontier of a crawl, as its workers take addresses from it. */
import type { RowDataPacket } from 'mysql2';
import { inTransaction } from '../database';
import type { Database } from '../database';
import { ASIDE_RANK, EXTERNAL_RANK, MAX_HOPS, RESOURCE_RANK, UNLINKED_RANK } from './ranks';
import { lockCrawl, lockWorker } from './workers';

/** An address of the frontier that a worker has taken. */
export interface QueuedUrl {
  urlId: number;
  address: string;
  rank: number;
  hops: number;
}

const open = `done = 0 and cut = 0 and host_left = 0 and hops <= ${MAX_HOPS}`;
const columns = 'f.url_id as urlId, u.text as address, f.rank, f.hops';

/** What a worker asks of the frontier. */
export function frontierOf(db: Database, crawlId: number, workerId: number) {
  const query = async <T>(sql: string, values: unknown[] = []) =>
    (await db.$client.query<RowDataPacket[]>(sql, values))[0] as T[];

  return {
    /**
     * The best rank at which something waits or is in hand; null when nothing does.
     * @param depth clicks beyond which nothing is fetched; null for no limit
     * @param checksOnly when no more pages may be fetched
     */
    async nextRank(depth: number | null, checksOnly = false): Promise<number | null> {
      const most = depth ?? UNLINKED_RANK - 1;
      const ranges = [
        [0, most],
        [UNLINKED_RANK, UNLINKED_RANK + most],
        [RESOURCE_RANK, RESOURCE_RANK],
        [EXTERNAL_RANK, EXTERNAL_RANK],
      ];
      for (const [low, high] of checksOnly ? ranges.slice(2) : ranges) {
        const [row] = await query<{ rank: number }>(
          `select rank from frontier where crawl_id = ? and ${open} and rank between ? and ? order by rank limit 1`,
          [crawlId, low, high],
        );
        if (row) return row.rank;
      }
      return null;
    },

    /** Whether as many pages were asked for as the crawl may. */
    async atLimit(pages: number): Promise<boolean> {
      const [{ asked }] = await query<{ asked: number }>('select asked from crawl where id = ?', [crawlId]);
      return asked >= pages;
    },

    /** Whether other workers hold something of this rank. */
    async othersHold(rank: number): Promise<boolean> {
      const rows = await query(
        `select 1 from frontier where crawl_id = ? and ${open} and rank = ? and held_by <> ? limit 1`,
        [crawlId, rank, workerId],
      );
      return rows.length > 0;
    },

    /**
     * Takes addresses of one rank, in the order in which they became known, within the limits of the crawl.
     * @throws membership_lost
     */
    take: (rank: number, count: number, limits: { pages: number; external: number }): Promise<QueuedUrl[]> =>
      inTransaction(db, async (run) => {
        await lockWorker(run, workerId);
        const { asked } = await lockCrawl(run, crawlId);
        const isPage = rank < RESOURCE_RANK;
        let room = isPage ? limits.pages - asked : Infinity;
        if (rank === EXTERNAL_RANK) {
          const taken =
            'select count(*) as n from frontier where crawl_id = ? and rank = ? and (done = 1 or held_by is not null)';
          room = limits.external - ((await run(taken, [crawlId, rank])) as { n: number }[])[0].n;
        }
        const most = Math.min(count, room);
        if (most <= 0) return [];
        const urls = (await run(
          `select ${columns} from frontier f join url u on u.id = f.url_id
            where f.crawl_id = ? and ${open} and f.rank = ? and f.held_by is null order by f.url_id limit ?`,
          [crawlId, rank, most],
        )) as unknown as QueuedUrl[];
        if (urls.length === 0) return [];
        const ids = urls.map(({ urlId }) => urlId);
        await run('update frontier set held_by = ? where crawl_id = ? and url_id in (?)', [workerId, crawlId, ids]);
        if (isPage) await run('update crawl set asked = asked + ? where id = ?', [ids.length, crawlId]);
        return urls;
      }),

    /** Leaves taken addresses until the crawl is resumed, because their hosts ask to wait. @throws membership_lost */
    leaveHosts: (urlIds: readonly number[]): Promise<void> =>
      inTransaction(db, async (run) => {
        await lockWorker(run, workerId);
        await lockCrawl(run, crawlId);
        const held = 'crawl_id = ? and url_id in (?) and held_by = ?';
        const counted = `select count(*) as pages from frontier where ${held} and rank < ${RESOURCE_RANK}`;
        const [{ pages }] = (await run(counted, [crawlId, urlIds, workerId])) as { pages: number }[];
        await run(`update frontier set host_left = 1, held_by = null where ${held}`, [crawlId, urlIds, workerId]);
        await run('update crawl set asked = greatest(0, asked - ?) where id = ?', [pages, crawlId]);
      }),

    /** How many addresses were left because their hosts ask to wait, and one of them; null for none. */
    async leftHosts(): Promise<{ pages: number; example: string } | null> {
      const [row] = await query<{ pages: number; example: string | null }>(
        `select count(*) as pages, min(u.text) as example from frontier f join url u on u.id = f.url_id
          where f.crawl_id = ? and f.done = 0 and f.host_left = 1`,
        [crawlId],
      );
      return row.example === null ? null : { pages: row.pages, example: row.example };
    },

    /** What the database says this worker holds: after a lost connection it may be more than the worker knows. */
    held: (): Promise<QueuedUrl[]> =>
      query<QueuedUrl>(
        `select ${columns} from frontier f join url u on u.id = f.url_id
          where f.crawl_id = ? and f.done = 0 and f.rank < ${ASIDE_RANK} and f.held_by = ?`,
        [crawlId, workerId],
      ),
  };
}

export type Frontier = ReturnType<typeof frontierOf>;

/** Whether an answer with HTML was found among the start pages and what they redirect to. */
export async function startIsRead(db: Database, crawlId: number): Promise<boolean> {
  const [rows] = await db.$client.query<RowDataPacket[]>(
    `select 1 from frontier f join page p on p.crawl_id = f.crawl_id and p.url_id = f.url_id
      where f.crawl_id = ? and f.rank = 0 and p.html = 1 and p.fetched_at is not null limit 1`,
    [crawlId],
  );
  return rows.length > 0;
}
