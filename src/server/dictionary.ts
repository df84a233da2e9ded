import { and, eq, inArray } from 'drizzle-orm';
import { hashOf, inRuns } from './database';
import type { Database } from './database';
import type { phrase, url } from './schema';

const CACHED = 200_000;
const RUN = 500;

/** Forgets the oldest entries once there are more than `size`. */
export function boundedMap<K, V>(size: number) {
  const map = new Map<K, V>();
  return {
    get: (key: K) => map.get(key),
    set: (key: K, value: V) => {
      map.delete(key);
      map.set(key, value);
      if (map.size > size) map.delete(map.keys().next().value as K);
    },
  };
}

/**
 * A table of texts with numbers, of one site.
 * @returns a function that gives every text its number, adding the texts that are new. It may be called again after a
 *   failure: numbers once given stay.
 */
export function dictionary(db: Database, table: typeof url | typeof phrase, siteId: number) {
  const cache = boundedMap<string, number>(CACHED);

  async function lookUp(texts: string[], into: Map<string, number>) {
    for (const run of inRuns(texts, RUN)) {
      const rows = await db
        .select({ id: table.id, text: table.text })
        .from(table)
        .where(and(eq(table.siteId, siteId), inArray(table.hash, run.map(hashOf))));
      for (const { id, text } of rows) {
        into.set(text, id);
        cache.set(text, id);
      }
    }
  }

  return async (texts: Iterable<string>): Promise<Map<string, number>> => {
    const numbers = new Map<string, number>();
    const unknown: string[] = [];
    for (const text of new Set(texts)) {
      const number = cache.get(text);
      if (number === undefined) unknown.push(text);
      else numbers.set(text, number);
    }
    await lookUp(unknown, numbers);
    const missing = unknown.filter((text) => !numbers.has(text));
    for (const run of inRuns(missing, RUN))
      await db
        .insert(table)
        .ignore()
        .values(run.map((text) => ({ siteId, hash: hashOf(text), text })));
    await lookUp(missing, numbers);
    return numbers;
  };
}
