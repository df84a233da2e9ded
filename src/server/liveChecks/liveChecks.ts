/** Live checks: what a person asks a worker to find out at once. One a site, kind and address is kept, the newest. */
import { and, eq, inArray } from 'drizzle-orm';
import type { LiveCheck, LiveCheckKind, LiveQuestions, LiveResults } from '$core/liveChecks';
import type { Message } from '$core/messages';
import { hashOf, inTransaction } from '../database';
import type { Database } from '../database';
import { liveCheck } from '../database/schema';

/** How long a worker has a check before others take it for lost, unless it says that it goes on. */
const LEASE_SECONDS = 20;
/** How often a worker says so. */
export const LIVE_BEAT_MS = 5000;

const shown = {
  id: liveCheck.id,
  kind: liveCheck.kind,
  address: liveCheck.address,
  state: liveCheck.state,
  endedAt: liveCheck.endedAt,
  result: liveCheck.result,
  fault: liveCheck.fault,
};
type Shown = Omit<LiveCheck, 'endedAt'> & { endedAt: Date | null };
const toCheck = ({ endedAt, ...row }: Shown): LiveCheck => ({ ...row, endedAt: endedAt?.getTime() ?? null });

/**
 * Asks workers to check an address. It takes the place of an earlier check of it under a new number, so that a worker
 * that still runs the earlier one stores nothing.
 * @returns its number
 */
export const askLiveCheck = <K extends LiveCheckKind>(
  db: Database,
  siteId: number,
  kind: K,
  address: string,
  asked: LiveQuestions[K],
): Promise<number> =>
  inTransaction(db, async (run) => {
    const ask = 'replace into live_check (site_id, kind, address_hash, address, asked) values (?, ?, ?, ?, ?)';
    const values = [siteId, kind, hashOf(address), address, JSON.stringify(asked)];
    const { insertId } = await run<{ insertId: number }>(ask, values);
    return insertId;
  });

/** The newest checks of a kind, by the addresses that were asked. */
export async function liveChecksOf<K extends LiveCheckKind>(
  db: Database,
  siteId: number,
  kind: K,
  addresses: readonly string[],
): Promise<Map<string, LiveCheck<K>>> {
  if (addresses.length === 0) return new Map();
  const rows = await db
    .select(shown)
    .from(liveCheck)
    .where(
      and(
        eq(liveCheck.siteId, siteId),
        eq(liveCheck.kind, kind),
        inArray(
          liveCheck.addressHash,
          addresses.map((address) => hashOf(address)),
        ),
      ),
    );
  return new Map(rows.map((row) => [row.address, toCheck(row as Shown) as LiveCheck<K>]));
}

/** A check that a worker has taken. */
export type LeasedCheck = Pick<LiveCheck, 'id' | 'kind' | 'address'> & {
  siteId: number;
  asked: LiveQuestions[LiveCheckKind];
};

/** Takes the oldest check that waits, or whose worker has gone; null when there is none. */
export const leaseLiveCheck = (db: Database): Promise<LeasedCheck | null> =>
  inTransaction(db, async (run) => {
    const open = `select id, site_id as siteId, kind, address, asked from live_check
      where state = 'waiting' or (state = 'running' and lease_until < current_timestamp(3))
      order by id limit 1 for update skip locked`;
    const [row] = (await run(open)) as (Omit<LeasedCheck, 'asked'> & { asked: string | null })[];
    if (!row) return null;
    const check: LeasedCheck = { ...row, asked: JSON.parse(row.asked ?? 'null') as LeasedCheck['asked'] };
    const lease = `update live_check set state = 'running',
      lease_until = current_timestamp(3) + interval ${LEASE_SECONDS} second where id = ?`;
    await run(lease, [check.id]);
    return check;
  });

/** Says that a check goes on. */
export const renewLiveCheck = (db: Database, id: number) =>
  db.$client.query(
    `update live_check set lease_until = current_timestamp(3) + interval ${LEASE_SECONDS} second
      where id = ? and state = 'running'`,
    [id],
  );

/** Stores what a check has found out, or why it could not. */
export async function endLiveCheck(
  db: Database,
  id: number,
  outcome: { result: LiveResults[LiveCheckKind] } | { fault: Message },
): Promise<void> {
  const state = 'result' in outcome ? ('done' as const) : ('failed' as const);
  await db
    .update(liveCheck)
    .set({ ...outcome, state, leaseUntil: null, endedAt: new Date() })
    .where(and(eq(liveCheck.id, id), eq(liveCheck.state, 'running')));
}
