import { getTableName } from 'drizzle-orm';
import type { RowDataPacket } from 'mysql2';
import { boundedMap } from './boundedMap';
import { hashOf, inRuns } from './database';
import type { Database } from './database';
import type { phrase, url } from './schema';

const CACHED = 200_000;
const RUN = 500;

/**
 * A table of texts with numbers, of one site.
 * @returns `numbersOf`, which gives every text its number, adding the texts that are new, and may be called again after
 *   a failure: numbers once given stay; and `forget`, which gives back the memory of what it knows
 */
export function dictionary(db: Database, table: typeof url | typeof phrase, siteId: number) {
  const cache = boundedMap<string, number>(CACHED);

  // Written for the driver itself: thousands of values a statement cost a query builder more than the database.
  const name = getTableName(table);
  async function lookUp(texts: string[], into: Map<string, number>) {
    for (const run of inRuns(texts, RUN)) {
      const query = 'select id, text from ?? where site_id = ? and hash in (?)';
      const [rows] = await db.$client.query<RowDataPacket[]>(query, [name, siteId, run.map(hashOf)]);
      for (const { id, text } of rows as { id: number; text: string }[]) {
        into.set(text, id);
        cache.set(text, id);
      }
    }
  }

  const numbersOf = async (texts: ReadonlySet<string>): Promise<Map<string, number>> => {
    const numbers = new Map<string, number>();
    const unknown: string[] = [];
    for (const text of texts) {
      const number = cache.get(text);
      if (number === undefined) unknown.push(text);
      else numbers.set(text, number);
    }
    await lookUp(unknown, numbers);
    const missing = unknown.filter((text) => !numbers.has(text));
    for (const run of inRuns(missing, RUN)) {
      const rows = run.map((text) => [siteId, hashOf(text), text]);
      await db.$client.query('insert ignore into ?? (site_id, hash, text) values ?', [name, rows]);
    }
    await lookUp(missing, numbers);
    return numbers;
  };
  return { numbersOf, forget: cache.clear };
}
