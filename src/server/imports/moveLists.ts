import type { RowDataPacket } from 'mysql2';
import type { Database } from '../database';
import { importsOf, saveList, SETTINGS_LIST, useImports } from './imports';

/**
 * Moves the lists of URLs that earlier versions kept in the settings of sites and crawls to tables of their own. Done
 * with the migrations; does nothing once it was done.
 */
export async function moveLists(db: Database): Promise<void> {
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
