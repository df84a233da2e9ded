/** A host that asks to wait, again and again, keeps its pages for later; those of other hosts are fetched. */
import { afterAll, beforeAll, expect, it } from 'vitest';
import { crawlState, resumeCrawl, seedFrontier, startIsRead, trapReview } from '$server/index';
import { clientOf, unlimited } from '../../tests/support/client';
import { testDatabase } from '../../tests/support/database';
import type { TestDatabase } from '../../tests/support/database';
import { linking, standIn } from '../../tests/support/standIn';
import { storedCrawl } from '../../tests/support/storedCrawl';
import { addressParts } from '$core/url';
import { fetchLoop } from './fetchLoop';
import type { HostLimiter } from './hostLimiter';
import { leadCrawl } from './lead';
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

it('ends a crawl whose start page is on such a host so that it can be resumed', async () => {
  const site = await standIn({ '/': { status: 503 } });
  const start = `${site.origin}/`;
  const { host } = addressParts(start);
  const { id, store, frontier, settings } = await storedCrawl(test.db, start, { retries: 0 });
  const limiter: HostLimiter = { ...unlimited, isLeft: () => site.asked.includes('/') };
  const { signal } = new AbortController();
  const setup = { settings, selectionOnly: false, store, frontier, limiter, signal, client: clientOf(settings) };
  const parsers = startParsers(setup, signal, { threads: 0 });
  const ending = await leadCrawl({
    ...setup,
    parsers,
    loop: fetchLoop({ ...setup, parsers }),
    listed: async function* () {},
    traps: trapReview(test.db, id, settings.trapLimit),
    onRank: async () => {},
    startIsRead: () => startIsRead(test.db, id),
  });
  expect(ending).toEqual({ state: 'stopped', reason: { code: 'host_left', host, pages: 1 }, limited: false });
  await site.close();
});
