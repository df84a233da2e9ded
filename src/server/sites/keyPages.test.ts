import { afterAll, beforeAll, expect, it } from 'vitest';
import { settingsSchema } from '$core/settings';
import { testDatabase } from '../../../tests/support/database';
import type { TestDatabase } from '../../../tests/support/database';
import { addCrawl } from '../crawls';
import { keyPagesOf, markKeyPages, MOST_KEY_PAGES, saveSite } from '.';

let test: TestDatabase;
beforeAll(async () => void (test = await testDatabase()));
afterAll(() => test.drop());

it('marks key pages of a site, over its crawls and up to a bound', async () => {
  const settings = settingsSchema.parse({ start: 'https://www.larkfield.example/' });
  const site = await saveSite(test.db, settings);
  const [first, second] = [await addCrawl(test.db, site, settings), await addCrawl(test.db, site, settings)];
  const other = await saveSite(test.db, settingsSchema.parse({ start: 'https://other.example/' }));
  const at = (path: string) => `https://www.larkfield.example${path}`;
  const marked = async (crawl: number) => (await keyPagesOf(test.db, crawl)).map(({ address }) => address);

  expect(await markKeyPages(test.db, site, [at('/a'), at('/b'), at('/a')], true)).toBe(true);
  expect(await markKeyPages(test.db, other, [at('/a')], false)).toBe(true);
  expect(await marked(first)).toEqual([at('/a'), at('/b')]);
  expect(await marked(second)).toEqual([at('/a'), at('/b')]);
  await markKeyPages(test.db, site, [at('/a')], false);
  expect(await marked(second)).toEqual([at('/b')]);
  const many = Array.from({ length: MOST_KEY_PAGES }, (_, i) => at(`/${i}`));
  expect(await markKeyPages(test.db, site, many, true)).toBe(false);
  expect(await marked(first)).toEqual([at('/b')]);
});
