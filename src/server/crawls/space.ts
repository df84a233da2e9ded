/** The room that crawls take in the database. */
import type { RowDataPacket } from 'mysql2';
import type { Database } from '../database';

/**
 * Bytes that a row takes besides its long texts, roughly: its other columns, its indexes, and its place in the
 * frontier.
 */
const ROW_BYTES = 600;

/**
 * Measures what a crawl takes: its pages with their links, its sources, which it may share with other crawls, its
 * snapshot, and the index of its texts. It is read from the rows, so it takes seconds for a large crawl, and is done
 * once when the crawl has ended.
 */
export async function measureSpace(db: Database, crawlId: number): Promise<void> {
  await db.$client.query(
    `update crawl set space = (
         select coalesce(sum(${ROW_BYTES} + length(links) + coalesce(length(headers), 0) + coalesce(length(ids), 0)), 0)
           from page where crawl_id = ?
       ) + (
         select coalesce(sum(length(data)), 0) from source
          where hash in (select content_hash from page where crawl_id = ?)
       ) + (
         select coalesce(sum(length(data)), 0) from snapshot_chunk where crawl_id = ?
       ) + (
         select coalesce(sum(length(data)), 0) from text_chunk where crawl_id = ?
       ) where id = ?`,
    [crawlId, crawlId, crawlId, crawlId, crawlId],
  );
}

/** Bytes that the whole database takes on its disk. */
export async function databaseBytes(db: Database): Promise<number> {
  const [[row]] = await db.$client.query<RowDataPacket[]>(
    'select coalesce(sum(data_length + index_length + data_free), 0) as bytes from information_schema.tables where table_schema = database()',
  );
  return Number(row.bytes);
}
