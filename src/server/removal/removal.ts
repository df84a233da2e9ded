/**
 * Deleting crawls and sites. What a person deletes is hidden at once, can be brought back for a while, and is then
 * removed by a worker, some rows at a time, so that nobody who works with the database waits for it.
 */
import { and, eq, inArray, isNull, isNotNull } from 'drizzle-orm';
import type { ResultSetHeader, RowDataPacket } from 'mysql2';
import { requestCrawl } from '../crawls';
import { inTransaction } from '../database';
import type { Database, Statement } from '../database';
import { crawl, site } from '../database/schema';

/** Seconds in which what was deleted can be brought back. */
export const UNDO_SECONDS = 10;
/** A little more than a person is told: the click that undoes takes its time. */
const KEPT_SECONDS = UNDO_SECONDS + 2;
const ROWS = 2000;

const ofCrawl = [
  ...[
    'page',
    'frontier',
    'tally',
    'trap',
    'robots_file',
    'sitemap_file',
    'sitemap_entry',
    'snapshot_chunk',
    'text_chunk',
  ],
  ...['crawl_import', 'crawl_worker', 'bound_count'],
] as const;
const ofSite = [
  ...['url', 'phrase', 'saved_selection', 'ignored_finding', 'live_check', 'robots_draft'],
  ...['draft', 'draft_step', 'key_page', 'dismissal', 'meant_structure'],
  ...['schedule', 'date_note', 'bound'],
] as const;

const isOpen = inArray(crawl.state, ['waiting', 'running', 'paused']);

/** Hides crawls until a worker removes them; those that run are stopped. @returns when, to bring them back by */
async function hide(db: Database, which: Parameters<typeof and>[0]): Promise<Date> {
  const at = new Date();
  const open = await db.select({ id: crawl.id }).from(crawl).where(and(which, isOpen));
  await db
    .update(crawl)
    .set({ deletedAt: at })
    .where(and(which, isNull(crawl.deletedAt)));
  for (const { id } of open) await requestCrawl(db, id, 'stop');
  return at;
}

/** Deletes a crawl. @returns when, to bring it back by */
export const deleteCrawl = (db: Database, id: number): Promise<Date> => hide(db, eq(crawl.id, id));

/** Deletes a site with all its crawls. @returns when, to bring them back by */
export async function deleteSite(db: Database, id: number): Promise<Date> {
  const at = await hide(db, eq(crawl.siteId, id));
  await db.update(site).set({ deletedAt: at }).where(eq(site.id, id));
  return at;
}

/**
 * Brings back what was deleted of a site at a moment: crawls, and the site itself if it was deleted with them.
 * @returns whether there was something to bring back; not after a worker has begun to remove it
 */
export const undelete = (db: Database, siteId: number, at: Date): Promise<boolean> =>
  db.transaction(async (tx) => {
    const [sites] = await tx
      .update(site)
      .set({ deletedAt: null })
      .where(and(eq(site.id, siteId), eq(site.deletedAt, at)));
    const [crawls] = await tx
      .update(crawl)
      .set({ deletedAt: null })
      .where(and(eq(crawl.siteId, siteId), eq(crawl.deletedAt, at)));
    return sites.affectedRows + crawls.affectedRows > 0;
  });

/** What is to be removed now: crawls that no worker has, and sites without crawls. */
async function due(db: Database): Promise<{ crawls: number[]; sites: number[] }> {
  const ids = async (sql: string) => (await db.$client.query<RowDataPacket[]>(sql))[0].map(({ id }) => id as number);
  const past = `deleted_at < utc_timestamp(3) - interval ${KEPT_SECONDS} second`;
  return {
    crawls: await ids(
      `select c.id from crawl c
        where c.${past} and not exists (select 1 from job j where j.crawl_id = c.id and j.state <> 'done'
          and (j.kind <> 'texts' or (j.state = 'leased' and j.lease_until > current_timestamp(3))))
        order by c.id`,
    ),
    sites: await ids(`select id from site where ${past}`),
  };
}

/** Deletes the rows of a table some at a time. @returns false when it was interrupted */
async function clear(db: Database, table: string, column: string, id: number, signal: AbortSignal): Promise<boolean> {
  while (!signal.aborted) {
    const [{ affectedRows }] = await db.$client.query<ResultSetHeader>(
      `delete from ${table} where ${column} = ? limit ${ROWS}`,
      [id],
    );
    if (affectedRows < ROWS) return true;
  }
  return false;
}

/**
 * Removes the sources that no page has any more. Crawls that are under way remember which sources are stored, so
 * nothing is removed beside one.
 * @returns false when that has to wait
 */
async function removeUnusedSources(db: Database, signal: AbortSignal): Promise<boolean> {
  let after: Buffer = Buffer.alloc(0);
  while (!signal.aborted) {
    const last = await inTransaction(db, (run) => removeSomeSources(run, after), 'repeatable read');
    if (last === 'busy') return false;
    if (last === null) return true;
    after = last;
  }
  return false;
}

async function removeSomeSources(run: Statement, after: Buffer): Promise<Buffer | 'busy' | null> {
  // Locks the places of jobs that wait or run: none becomes one of them before this transaction has ended.
  const active = await run<RowDataPacket[]>(
    "select crawl_id from job where kind <> 'texts' and state in ('waiting', 'leased') limit 1 lock in share mode",
  );
  if (active.length) return 'busy';
  const rows = await run<RowDataPacket[]>(`select hash from source where hash > ? order by hash limit ${ROWS}`, [
    after,
  ]);
  if (rows.length === 0) return null;
  const hashes = rows.map(({ hash }) => hash as Buffer);
  await run(
    'delete s from source s where s.hash in (?) and not exists (select 1 from page p where p.content_hash = s.hash)',
    [hashes],
  );
  return hashes[hashes.length - 1];
}

/** Bytes of a table that are free before it is worth writing it anew. */
const FREE_BYTES = 64 << 20;

/** Gives the room of removed rows back to the disk, where it is much. */
async function giveBack(db: Database): Promise<void> {
  const [tables] = await db.$client.query<RowDataPacket[]>(
    `select table_name as name from information_schema.tables
      where table_schema = database() and data_free > greatest(${FREE_BYTES}, data_length / 4)`,
  );
  for (const { name } of tables) await db.$client.query(`optimize table \`${name as string}\``);
}

/**
 * Removes what was deleted and can no longer be brought back. One worker does so at a time.
 * @returns whether something was removed
 */
export async function removeDeleted(db: Database, signal: AbortSignal): Promise<boolean> {
  const { crawls, sites } = await due(db);
  if (crawls.length + sites.length === 0) return false;
  for (const id of crawls)
    for (const table of ofCrawl) if (!(await clear(db, table, 'crawl_id', id, signal))) return false;
  // The rows of crawls and sites stay until all that hangs on them is gone, so that a removal that was interrupted is
  // ended.
  if (!(await removeUnusedSources(db, signal))) return false;
  for (const id of crawls)
    await inTransaction(db, async (run) => {
      await run('delete from job where crawl_id = ?', [id]);
      await run('delete from crawl where id = ? and deleted_at is not null', [id]);
    });
  for (const id of sites) if (!(await removeSite(db, id, signal))) return false;
  await giveBack(db);
  return true;
}

async function removeSite(db: Database, id: number, signal: AbortSignal): Promise<boolean> {
  const left = await db.select({ id: crawl.id }).from(crawl).where(eq(crawl.siteId, id)).limit(1);
  if (left.length) return true;
  for (const table of ['import_chunk', 'import_part'])
    await db.$client.query('delete c from ?? c join url_import i on i.id = c.import_id where i.site_id = ?', [
      table,
      id,
    ]);
  for (const table of [...ofSite, 'url_import']) if (!(await clear(db, table, 'site_id', id, signal))) return false;
  await db.delete(site).where(and(eq(site.id, id), isNotNull(site.deletedAt)));
  return true;
}
