/** Crawling a selection again: the rest is carried over from the crawl before. */
import { hashOf, inRuns, inTransaction } from '../database';
import type { Database } from '../database';
import { copyImports } from '../imports';
import { addCrawl } from './crawls';
import type { Crawl } from './crawls';
import { ASIDE_RANK } from './ranks';
import { pageColumns } from './store';

const RUN = 1000;

/** Everything of a page but what the new crawl says itself. */
const carriedColumns = pageColumns
  .map(({ sqlName }) => sqlName)
  .filter((name) => name !== 'crawl_id' && name !== 'carried');

/** The columns of other tables that are taken over as they are. */
const carriedTables = [
  ['sitemap_file', 'url_id, entries, skipped, is_feed, fault, fault_line, index_id, answer'],
  ['sitemap_entry', 'sitemap_id, line, url_id, lastmod, alternates'],
];

/**
 * Adds a crawl that fetches only some addresses of an earlier one; pages, files and what was known of the others are
 * taken over and marked.
 * @returns the number of the new crawl
 */
export async function recrawl(db: Database, base: Crawl, addresses: readonly string[]): Promise<number> {
  const id = await addCrawl(db, base.siteId, base.settings, 'carrying over');
  // No worker takes the job up before its rows are there, however long that takes.
  await db.$client.query(`update job set state = 'paused' where crawl_id = ?`, [id]);
  await copyImports(db, id, base.id);
  await inTransaction(db, async (run) => {
    await run(`update crawl set base_id = ?, state = 'waiting' where id = ?`, [base.id, id]);
    // What was not fetched then is not fetched now, unless it is selected.
    await run(
      `insert into frontier (crawl_id, url_id, rank, hops, done, cut)
        select ?, url_id, if(done, rank, greatest(rank, ${ASIDE_RANK})), hops, done, cut from frontier where crawl_id = ?`,
      [id, base.id],
    );
    for (const part of inRuns(addresses, RUN))
      await run(
        `update frontier f join url u on u.id = f.url_id
            join frontier o on o.crawl_id = ? and o.url_id = f.url_id
            set f.done = 0, f.cut = 0, f.rank = if(o.rank >= ${ASIDE_RANK}, 0, o.rank), f.hops = least(o.hops, 1)
          where f.crawl_id = ? and u.site_id = ? and u.hash in (?)`,
        [base.id, id, base.siteId, part.map(hashOf)],
      );
    await run(
      `insert into page (crawl_id, ${carriedColumns.join(', ')}, carried)
        select f.crawl_id, ${carriedColumns.map((name) => `p.${name}`).join(', ')}, 1
          from page p join frontier f on f.crawl_id = ? and f.url_id = p.url_id and f.done = 1
         where p.crawl_id = ?`,
      [id, base.id],
    );
    for (const [table, columns] of carriedTables)
      await run(`insert into ${table} (crawl_id, ${columns}) select ?, ${columns} from ${table} where crawl_id = ?`, [
        id,
        base.id,
      ]);
    await run(
      `update crawl set known = (select count(*) from frontier where crawl_id = ?),
         done = (select count(*) from frontier where crawl_id = ? and done = 1) where id = ?`,
      [id, id, id],
    );
    await run(`update job set state = 'waiting', owner = null, lease_until = null where crawl_id = ?`, [id]);
  });
  return id;
}
