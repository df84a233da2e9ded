/** A host that asks to wait, again and again, keeps its pages for later; those of other hosts are fetched. */
import { afterAll, beforeAll, expect, it } from 'vitest';
import { crawlState, resumeCrawl, seedFrontier } from '$server/index';
import { clientOf, unlimited } from '../../tests/support/client';
import { testDatabase } from '../../tests/support/database';
import type { TestDatabase } from '../../tests/support/database';
import { linking, standIn } from '../../tests/support/standIn';
import { storedCrawl } from '../../tests/support/storedCrawl';
import { addressParts } from '$core/url';
import { fetchLoop } from './fetchLoop';
import type { HostLimiter } from './hostLimiter';
import { startParsers } from './parserPool';

let test: TestDatabase;
beforeAll(async () => (test = await testDatabase()));
afterAll(() => test.drop());

it('leaves the pages of a host until the crawl is resumed', async () => {
  const busy = await standIn({ '/a': { status: 503 }, '/b': linking('B') });
  const other = await standIn({ '/': linking('Other') });
  const hosts = [addressParts(busy.origin).host];
  const { id, store, frontier, settings } = await storedCrawl(test.db, `${other.origin}/`, { hosts, retries: 0 });
  await seedFrontier(store, [`${busy.origin}/a`, `${busy.origin}/b`, `${other.origin}/`], 0);
  let isLeft = false;
  const limiter: HostLimiter = {
    ...unlimited,
    // From its first answer on.
    isLeft: (host) => host === hosts[0] && (isLeft ||= busy.asked.includes('/a')),
  };
  const { signal } = new AbortController();
  const setup = { settings: { ...settings, connections: 1 }, selectionOnly: false };
  const parsers = startParsers(setup, signal, { threads: 0 });
  const client = clientOf(setup.settings);
  await fetchLoop({ ...setup, store, frontier, client, limiter, parsers, signal }).run(0);
  expect(busy.asked).not.toContain('/b');
  expect(other.asked).toContain('/');
  expect(await frontier.leftHosts()).toEqual({ pages: 2, example: `${busy.origin}/a` });
  expect(await crawlState(test.db, id)).toMatchObject({ known: 3, done: 1 });
  await resumeCrawl(test.db, id);
  expect(await frontier.take(0, 5, { pages: 100, external: 0 })).toHaveLength(2);
  await Promise.all([busy.close(), other.close()]);
});
