import { getTableName } from 'drizzle-orm';
import type { RowDataPacket } from 'mysql2';
import { boundedMap } from '../caches';
import { hashOf } from './connection';
import type { Database } from './connection';
import { inRuns } from './runs';
import type { phrase, url } from './schema';

const CACHED = 200_000;
const RUN = 1000;

interface Entry {
  text: string;
  hash: Buffer;
}
type Numbered = { id: number; text: string }[];

/**
 * A table of texts with numbers, of one site.
 * @returns `numbersOf`, which gives every text its number, adding the texts that are new, and may be called again after
 *   a failure: numbers once given stay; `known`, which gives those that have numbers; and `forget`, which gives back
 *   the memory of what it knows
 */
export function dictionary(db: Database, table: typeof url | typeof phrase, siteId: number) {
  const cache = boundedMap<string, number>(CACHED);
  const name = getTableName(table);
  /** Whether most texts asked for last were new: then they are added first, and only the others looked up. */
  let mostlyNew = false;

  // Written for the driver itself: thousands of values a statement cost a query builder more than the database.
  const query = async (sql: string, values: unknown[]) =>
    (await db.$client.query<RowDataPacket[]>(sql, [name, ...values]))[0] as Numbered;
  const find = (entries: readonly Entry[]) =>
    query('select id, text from ?? where site_id = ? and hash in (?)', [siteId, entries.map(({ hash }) => hash)]);
  const add = (entries: readonly Entry[]) =>
    query('insert ignore into ?? (site_id, hash, text) values ? returning id, text', [
      entries.map(({ text, hash }) => [siteId, hash, text]),
    ]);

  async function number(entries: readonly Entry[], numbers: Map<string, number>, onlyKnown: boolean): Promise<void> {
    let left = entries;
    let added = 0;
    // The last step finds what another worker added meanwhile.
    for (const step of onlyKnown ? [find] : mostlyNew ? [add, find] : [find, add, find]) {
      const rows = left.length ? await step(left) : [];
      for (const { id, text } of rows) {
        numbers.set(text, id);
        cache.set(text, id);
      }
      if (step === add) added = rows.length;
      left = left.filter(({ text }) => !numbers.has(text));
    }
    if (!onlyKnown) mostlyNew = 2 * added > entries.length;
  }

  const lookUp = async (texts: ReadonlySet<string>, onlyKnown: boolean): Promise<Map<string, number>> => {
    const numbers = new Map<string, number>();
    const unknown: Entry[] = [];
    for (const text of texts) {
      const known = cache.get(text);
      if (known === undefined) unknown.push({ text, hash: hashOf(text) });
      else numbers.set(text, known);
    }
    for (const run of inRuns(unknown, RUN)) await number(run, numbers, onlyKnown);
    return numbers;
  };
  return {
    numbersOf: (texts: ReadonlySet<string>) => lookUp(texts, false),
    known: (texts: ReadonlySet<string>) => lookUp(texts, true),
    forget: cache.clear,
  };
}

export type Dictionary = ReturnType<typeof dictionary>;
