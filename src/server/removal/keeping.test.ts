import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { settingsSchema } from '$core/settings';
import { testDatabase } from '../../../tests/support/database';
import type { TestDatabase } from '../../../tests/support/database';
import { addCrawl, crawlsOf, keepCrawls, pinCrawl, pruneCrawls, saveSite } from '..';
import { crawl } from '../database/schema';

let test: TestDatabase;
beforeAll(async () => (test = await testDatabase()));
afterAll(() => test.drop());

const settings = settingsSchema.parse({ start: 'https://kept.example/' });
const end = (id: number) => test.db.update(crawl).set({ state: 'done' }).where(eq(crawl.id, id));

describe('old crawls', () => {
  it('are kept up to a limit, and pinned ones for good', async () => {
    const id = await saveSite(test.db, settings);
    const crawls: number[] = [];
    for (let i = 0; i < 5; i++) crawls.push(await addCrawl(test.db, id, settings, 'test'));
    for (const one of crawls.slice(0, 4)) await end(one);
    await pinCrawl(test.db, crawls[0], true);
    expect(await pruneCrawls(test.db, id)).toEqual([]);
    await keepCrawls(test.db, id, 1);
    // The newest ended one stays, and so does the one that has not ended.
    expect(await pruneCrawls(test.db, id)).toEqual([crawls[2], crawls[1]]);
    expect((await crawlsOf(test.db, id)).map((one) => one.id)).toEqual([crawls[4], crawls[3], crawls[0]]);
  });
});
