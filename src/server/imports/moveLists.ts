import { eq } from 'drizzle-orm';
import type { RowDataPacket } from 'mysql2';
import type { Database } from '../database';
import { importChunk } from '../database/schema';
import { ROWS_COLUMN } from '$core/imports';
import { importsOf, saveList, SETTINGS_LIST, useImports } from './imports';
import { unpackNumbers } from './packing';
import { packParts } from './pack';
import { writeParts } from './parts';

/**
 * Moves the lists of URLs that earlier versions kept in the settings of sites and crawls to tables of their own. Done
 * with the migrations; does nothing once it was done.
 */
export async function moveLists(db: Database): Promise<void> {
  await moveNumbers(db);
  const query = async <T>(sql: string, values: unknown[] = []) =>
    (await db.$client.query<RowDataPacket[]>(sql, values))[0] as unknown as T[];
  const withLists = (table: 'site' | 'crawl') =>
    query<{ id: number; siteId: number; settings: string }>(
      `select id, ${table === 'site' ? 'id' : 'site_id'} as siteId, settings from ${table}
        where json_length(settings, '$.lists') > 0 order by id`,
    );
  const [crawls, sites] = [await withLists('crawl'), await withLists('site')];
  if (crawls.length === 0 && sites.length === 0) return;
  const take = async (table: 'site' | 'crawl', { id, siteId, settings }: (typeof crawls)[number]) => {
    const { lists, ...rest } = JSON.parse(settings) as { lists: string[] };
    await saveList(db, siteId, SETTINGS_LIST, lists);
    if (table === 'crawl' && (await importsOf(db, siteId)).length) await useImports(db, id, siteId);
    await query(`update ${table} set settings = ? where id = ?`, [JSON.stringify(rest), id]);
  };
  // What a site has now comes last, and so is what its next crawl uses.
  for (const row of crawls) await take('crawl', row);
  for (const row of sites) await take('site', row);
}

/** Moves the addresses of lists that earlier versions stored by their numbers. */
async function moveNumbers(db: Database): Promise<void> {
  const query = async <T>(sql: string, values: unknown[] = []) =>
    (await db.$client.query<RowDataPacket[]>(sql, values))[0] as unknown as T[];
  for (const { id } of await query<{ id: number }>('select distinct import_id as id from import_chunk')) {
    const chunks = await query<{ data: Buffer }>('select data from import_chunk where import_id = ? order by seq', [
      id,
    ]);
    const texts: string[] = [];
    for (const { data } of chunks)
      for (const { text } of await query<{ text: string }>('select text from url where id in (?)', [
        unpackNumbers(data),
      ]))
        texts.push(text);
    const addresses = texts.sort();
    const columns = { [ROWS_COLUMN]: new Float64Array(addresses.length).fill(1) };
    await db.transaction(async (tx) => {
      await writeParts(tx, id, await packParts({ addresses, columns, cells: null }));
      await tx.delete(importChunk).where(eq(importChunk.importId, id));
    });
  }
}
