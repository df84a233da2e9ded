/** The stored form of snapshots: by part, in chunks. */
import { and, asc, eq, sql } from 'drizzle-orm';
import { EdgeMapError } from '$core/errors';
import type { Report, ReportCounts } from '$core/report';
import { REPORT_PART } from '$core/snapshot';
import type { SnapshotParts } from '$core/snapshot';
import type { Crawl } from '../crawls';
import { inRuns, inTransaction } from '../database';
import type { Database } from '../database';
import { crawl, snapshotChunk } from '../database/schema';
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

/** What identifies the snapshot of a crawl: each analysis stores another in its place. */
export type Analysed = Pick<Crawl, 'id' | 'analysedAt'>;

/** The crawl that chunks are of, as long as it has not been analysed anew: both are read at one moment. */
const stillOf = ({ id, analysedAt }: Analysed) =>
  and(eq(crawl.id, snapshotChunk.crawlId), eq(crawl.id, id), sql`${crawl.analysedAt} <=> ${analysedAt}`);

/** When a crawl was analysed last; undefined when there is no such crawl. */
export async function newestAnalysis(db: Database, crawlId: number): Promise<Analysed | undefined> {
  const [row] = await db
    .select({ id: crawl.id, analysedAt: crawl.analysedAt })
    .from(crawl)
    .where(eq(crawl.id, crawlId));
  return row;
}

const analysedAnew = (crawlId: number) =>
  new EdgeMapError('analysed_anew', `Crawl ${crawlId} has been analysed anew meanwhile.`, { crawl: crawlId });

/** One part of a stored snapshot; null when there is none, or a newer analysis by now. */
export async function readPart(db: Database, row: Analysed, part: string): Promise<Buffer | null> {
  const chunks = await db
    .select({ data: snapshotChunk.data })
    .from(snapshotChunk)
    .innerJoin(crawl, stillOf(row))
    .where(and(eq(snapshotChunk.crawlId, row.id), eq(snapshotChunk.part, part)))
    .orderBy(asc(snapshotChunk.seq));
  return chunks.length ? Buffer.concat(chunks.map(({ data }) => data)) : null;
}

/**
 * The names of the parts in which the snapshot of a crawl is stored; none when it has none.
 * @throws analysed_anew when there is a newer analysis by now
 */
export async function partNames(db: Database, row: Analysed): Promise<string[]> {
  const names = await db
    .selectDistinct({ part: snapshotChunk.part })
    .from(snapshotChunk)
    .innerJoin(crawl, stillOf(row))
    .where(eq(snapshotChunk.crawlId, row.id));
  const newest = names.length === 0 ? await newestAnalysis(db, row.id) : row;
  if (newest && newest.analysedAt?.getTime() !== row.analysedAt?.getTime()) throw analysedAnew(row.id);
  return names.map(({ part }) => part);
}

/**
 * Reads parts that are stored one after the other: all of them at once would take their memory twice.
 * @throws analysed_anew when there is a newer analysis by now
 */
export async function* readParts(db: Database, row: Analysed, names: Iterable<string>) {
  for (const name of names) {
    const bytes = await readPart(db, row, name);
    if (!bytes) throw analysedAnew(row.id);
    yield [name, bytes] as const;
  }
}
