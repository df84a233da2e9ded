import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { settingsSchema } from '$core/settings';
import { testDatabase } from '../../tests/support/database';
import type { TestDatabase } from '../../tests/support/database';
import { dictionary } from './database';
import { importChunk, site, url, urlImport } from './database/schema';
import { addCrawl, getCrawl, importedAddresses, importsOf, importsOfCrawl, prepareDatabase, saveSite } from './index';

let test: TestDatabase;
beforeAll(async () => (test = await testDatabase()));
afterAll(() => test.drop());

describe('the database', () => {
  it('may be prepared by several processes at once', async () => {
    await Promise.all([prepareDatabase(test.url), prepareDatabase(test.url), prepareDatabase(test.url)]);
  });
  it('says in words that it does not answer', () =>
    expect(prepareDatabase('mysql://u:p@127.0.0.1:9/edgemap')).rejects.toThrow(/does not answer/));
  it('is asked in one time zone, collation, isolation and mode, whatever the server is set to', async () => {
    const ask =
      'select @@time_zone as zone, @@tx_isolation as isolation, @@collation_connection as collation, @@sql_mode as mode';
    // Several connections of the pool at once.
    const answers = await Promise.all(Array.from({ length: 4 }, () => test.db.$client.query(`${ask}, sleep(0.05)`)));
    for (const [rows] of answers)
      expect((rows as object[])[0]).toMatchObject({
        zone: '+00:00',
        isolation: 'READ-COMMITTED',
        collation: 'utf8mb4_bin',
        mode: expect.stringContaining('STRICT_TRANS_TABLES') as string,
      });
  });
  it('has the lists that earlier versions kept in settings moved to tables, once', async () => {
    const settings = settingsSchema.parse({ start: 'https://lists.example/' });
    const siteId = await saveSite(test.db, settings);
    const crawlId = await addCrawl(test.db, siteId, settings, 'test');
    const lists = ['https://lists.example/a', 'https://lists.example/b'];
    for (const table of ['site', 'crawl'])
      await test.db.$client.query(`update ${table} set settings = ? where id = ?`, [
        JSON.stringify({ ...settings, lists: table === 'site' ? [...lists, 'https://lists.example/c'] : lists }),
        table === 'site' ? siteId : crawlId,
      ]);
    await prepareDatabase(test.url);
    await prepareDatabase(test.url);
    const addressesOf = async (imports: { id: number }[]) => {
      const all: string[] = [];
      for await (const some of importedAddresses(
        test.db,
        imports.map(({ id }) => id),
      ))
        all.push(...some);
      return all;
    };
    expect(await addressesOf(await importsOfCrawl(test.db, crawlId))).toEqual(lists);
    expect(await addressesOf(await importsOf(test.db, siteId))).toEqual([...lists, 'https://lists.example/c']);
    const [row] = await test.db.select().from(site).where(eq(site.id, siteId));
    for (const { settings } of [row, (await getCrawl(test.db, crawlId))!]) expect(settings).not.toHaveProperty('lists');
  });
  it('has lists that earlier versions stored by the numbers of their addresses moved, once', async () => {
    const { db } = test;
    const siteId = await saveSite(db, settingsSchema.parse({ start: 'https://numbers.example/' }));
    const addresses = ['https://numbers.example/a', 'https://numbers.example/b', 'https://numbers.example/c'];
    const numbers = [...(await dictionary(db, url, siteId).numbersOf(new Set(addresses))).values()].sort(
      (a, b) => a - b,
    );
    const [{ id }] = await db
      .insert(urlImport)
      .values({ siteId, kind: 'list', name: 'Old', urls: numbers.length })
      .$returningId();
    // Ascending, as the differences between them, in LEB128.
    const differences = numbers.map((number, i) => number - (numbers[i - 1] ?? 0));
    const bytes = differences.flatMap((n) => (n < 128 ? [n] : [(n & 127) | 128, n >> 7]));
    await db.insert(importChunk).values({ importId: id, seq: 0, data: Buffer.from(bytes) });
    await prepareDatabase(test.url);
    await prepareDatabase(test.url);
    const found: string[] = [];
    for await (const some of importedAddresses(db, [id])) found.push(...some);
    expect(found).toEqual(addresses);
    expect(await db.select().from(importChunk).where(eq(importChunk.importId, id))).toEqual([]);
  });
});
