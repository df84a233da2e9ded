/** The stored form of snapshots: by part, in chunks. */
import { and, asc, eq } from 'drizzle-orm';
import type { Report, ReportCounts } from '$core/report';
import { groupOfPart, REPORT_PART } from '$core/snapshot';
import type { PartGroup, SnapshotParts } from '$core/snapshot';
import { inRuns, inTransaction } from '../database';
import type { Database } from '../database';
import { snapshotChunk } from '../database/schema';
import { lockLease } from '../jobs';
import type { Lease } from '../jobs';

const CHUNK_BYTES = 1 << 20;
/** Chunks of up to so many bytes go to the database together, a run of them in one statement. */
const SMALL_BYTES = 1 << 14;
const SMALL_RUN = 100;

/** The counts of a report among the parts; null when there is none. */
function countsOf(parts: SnapshotParts): ReportCounts | null {
  const report = parts.get(REPORT_PART);
  return report ? (JSON.parse(new TextDecoder().decode(report)) as Report).counts : null;
}

/** Stores the parts of a crawl's snapshot in place of earlier ones. @throws lease_lost */
export const storeSnapshot = (db: Database, lease: Lease, parts: SnapshotParts): Promise<void> =>
  inTransaction(db, async (run, send) => {
    await lockLease(run, lease);
    await run('delete from snapshot_chunk where crawl_id = ?', [lease.crawlId]);
    const insert = 'insert into snapshot_chunk (crawl_id, part, seq, data) values';
    const small: unknown[][] = [];
    for (const [part, bytes] of parts)
      for (let seq = 0; seq === 0 || seq * CHUNK_BYTES < bytes.length; seq++) {
        const { buffer, byteOffset, length } = bytes.subarray(seq * CHUNK_BYTES, (seq + 1) * CHUNK_BYTES);
        const row = [lease.crawlId, part, seq, Buffer.from(buffer, byteOffset, length)];
        if (length <= SMALL_BYTES) small.push(row);
        else await send(`${insert} (?, ?, ?, ?)`, row);
      }
    for (const rows of inRuns(small, SMALL_RUN)) await run(`${insert} ?`, [rows]);
    const counts = countsOf(parts);
    await run('update crawl set analysed_at = utc_timestamp(3), counts = ? where id = ?', [
      counts && JSON.stringify(counts),
      lease.crawlId,
    ]);
  });

/** One part of a stored snapshot; null when there is none. */
export async function readPart(db: Database, crawlId: number, part: string): Promise<Buffer | null> {
  const chunks = await db
    .select({ data: snapshotChunk.data })
    .from(snapshotChunk)
    .where(and(eq(snapshotChunk.crawlId, crawlId), eq(snapshotChunk.part, part)))
    .orderBy(asc(snapshotChunk.seq));
  return chunks.length ? Buffer.concat(chunks.map(({ data }) => data)) : null;
}

/** Reads the parts of a group one after the other: all of them at once would take their memory twice. */
export async function* readGroup(db: Database, crawlId: number, group: PartGroup, stored: readonly string[]) {
  for (const name of stored)
    if (groupOfPart(name) === group) yield [name, (await readPart(db, crawlId, name)) ?? Buffer.alloc(0)] as const;
}

/** The names of the parts in which the snapshot of a crawl is stored; none when it has none. */
export async function partNames(db: Database, crawlId: number): Promise<string[]> {
  const rows = await db
    .selectDistinct({ part: snapshotChunk.part })
    .from(snapshotChunk)
    .where(eq(snapshotChunk.crawlId, crawlId));
  return rows.map(({ part }) => part);
}

/** Parts by their names, one after the other; names that are not stored are passed over. */
export async function* readParts(db: Database, crawlId: number, names: readonly string[]) {
  for (const name of names) {
    const bytes = await readPart(db, crawlId, name);
    if (bytes) yield [name, bytes] as const;
  }
}
