/** What a person asks of a crawl is done within seconds, whatever the crawl waits for. */
import type { ServerResponse } from 'node:http';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { CrawlSettings } from '$core/settings';
import { crawlState, deleteCrawl, leaseJob, requestCrawl, resumeCrawl } from '$server/index';
import type { CrawlState, Ending } from '$server/index';
import { crawling, until } from '../../tests/support/crawling';
import type { Given } from '../../tests/support/crawling';
import { expireLease, testDatabase } from '../../tests/support/database';
import type { TestDatabase } from '../../tests/support/database';
import { linking, standIn } from '../../tests/support/standIn';
import type { StandIn, StandInPage } from '../../tests/support/standIn';

let test: TestDatabase;
beforeAll(async () => (test = await testDatabase()));
afterAll(() => test.drop());
const { begin, finish } = crawling(() => test.db);
const stateOf = async (id: number) => (await crawlState(test.db, id))!;

const museum = { '/': linking('Museum', '/visit'), '/visit': linking('Visit', '/') };
/** An answer that never comes, or never ends, or asks to come back later. */
const silent: StandInPage = () => {};
const endless = (_: unknown, response: ServerResponse) => {
  response.writeHead(200, { 'content-type': 'application/xml' });
  response.write('<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">');
};
const later: StandInPage = { status: 429, headers: { 'retry-after': '600' } };

interface State {
  pages: Record<string, StandInPage>;
  /** What was asked for last. */
  asked: string;
  /** How many addresses are known then. */
  known: number;
}
const states: Record<string, State> = {
  'the start page': { pages: { '/': silent }, asked: '/', known: 1 },
  'robots.txt': { pages: { ...museum, '/robots.txt': silent }, asked: '/robots.txt', known: 1 },
  'a page': { pages: { ...museum, '/visit': silent }, asked: '/visit', known: 2 },
  'a host that asks to come back later': { pages: { ...museum, '/visit': later }, asked: '/visit', known: 2 },
  'a sitemap that does not answer': {
    pages: { ...museum, '/sitemap.xml': silent },
    asked: '/sitemap.xml',
    known: 2,
  },
  'a sitemap that does not end': { pages: { ...museum, '/sitemap.xml': endless }, asked: '/sitemap.xml', known: 2 },
};

const stopped = { state: 'stopped', reason: { code: 'stopped' }, limited: false };

interface Case {
  given?: Given;
  /** @param interrupt what the worker is told by its own process */
  ask: (id: number, interrupt: AbortController) => unknown;
  /** What the work on the crawl ends with; null when it has not ended. */
  ending: unknown;
  /** How the crawl stands then. */
  left: Partial<CrawlState>;
}
const cases: Record<string, Case> = {
  'stopped by a person': {
    ask: (id) => requestCrawl(test.db, id, 'stop'),
    ending: stopped,
    left: { state: 'stopped', request: null },
  },
  'stopped at its terminal': {
    ask: (_, interrupt) => interrupt.abort('stop'),
    ending: stopped,
    left: { state: 'stopped', request: null },
  },
  'paused by a person': {
    ask: (id) => requestCrawl(test.db, id, 'pause'),
    ending: null,
    left: { state: 'paused', request: null },
  },
  'left by a worker that is shut down': {
    ask: (_, interrupt) => interrupt.abort('shutdown'),
    ending: null,
    left: { state: 'waiting' },
  },
  'left by a worker that dies': {
    // It writes nothing any more.
    ask: (_, interrupt) => interrupt.abort('lost'),
    ending: null,
    left: { state: 'running' },
  },
  'deleted by a person': {
    ask: (id) => deleteCrawl(test.db, id),
    ending: stopped,
    left: { state: 'stopped' },
  },
  'at its limit of time': {
    given: { minutes: 1 },
    ask: (id) => test.db.$client.query('update crawl set ran_ms = 60000 where id = ?', [id]),
    ending: { state: 'done', reason: { code: 'time_limit', minutes: 1 }, limited: true },
    left: { state: 'done', limited: true },
  },
};

describe.each(Object.entries(states))('a crawl that waits for %s', (_, { pages, asked, known }) => {
  let site: StandIn;
  beforeAll(async () => (site = await standIn(pages)));
  afterAll(() => site.close());

  /** Begins a crawl, or takes one up, and waits until it waits. */
  async function waiting(given: Partial<CrawlSettings> = {}) {
    const id = await begin(`${site.origin}/`, given);
    const interrupt = new AbortController();
    const before = site.asked.length;
    const ended = finish(id, interrupt.signal);
    await until(() => site.asked.slice(before).includes(asked), `${asked} was asked for`);
    // What else answers has been stored by then.
    await until(async () => (await stateOf(id)).known === known, `${known} addresses are known`);
    return { id, interrupt, ended };
  }

  it.each(Object.entries(cases))('is %s', async (_, { given, ask, ending, left }) => {
    const { id, interrupt, ended } = await waiting(given);
    await ask(id, interrupt);
    expect((await ended).ending).toEqual(ending as Ending | null);
    const state = await stateOf(id);
    expect(state).toMatchObject(left);
    // Whatever there is can be looked at.
    if (ending !== null) expect(state.analysedAt).not.toBeNull();
  });

  it('is taken up again after a pause and after a death, and then stopped', async () => {
    const { id, interrupt, ended } = await waiting();
    interrupt.abort('lost');
    await ended;
    await expireLease(test.db, id);
    const leaseOf = async () => {
      // Those of the tests above wait too.
      for (let lease = await leaseJob(test.db, 'heir'); lease; lease = await leaseJob(test.db, 'heir'))
        if (lease.crawlId === id) return lease;
      throw new Error('The crawl is not to be leased.');
    };
    const paused = finish(id, undefined, await leaseOf());
    await requestCrawl(test.db, id, 'pause');
    expect((await paused).ending).toBeNull();
    await resumeCrawl(test.db, id);
    const again = finish(id, undefined, await leaseOf());
    await requestCrawl(test.db, id, 'stop');
    expect((await again).ending).toEqual(stopped);
  });
});

it('a crawl that takes in a long list is stopped before it has all of it', async () => {
  const site = await standIn(museum);
  const lists = Array.from({ length: 60_000 }, (_, i) => `${site.origin}/listed/${i}`);
  const id = await begin(`${site.origin}/`, { lists });
  const ended = finish(id);
  await until(async () => (await stateOf(id)).known > 1000, 'some of it is known');
  await requestCrawl(test.db, id, 'stop');
  expect((await ended).ending).toEqual(stopped);
  expect((await stateOf(id)).known).toBeLessThan(60_000);
  await site.close();
});

it('a crawl that is deleted while it waits is not leased any more', async () => {
  const crawlId = await begin('https://deleted.example/', {}, null);
  await requestCrawl(test.db, crawlId, 'stop');
  await deleteCrawl(test.db, crawlId);
  await test.db.$client.query(`update job set state = 'waiting' where crawl_id = ?`, [crawlId]);
  // Those of the tests above wait to be resumed.
  for (let lease = await leaseJob(test.db, 'any'); lease; lease = await leaseJob(test.db, 'any'))
    expect(lease.crawlId).not.toBe(crawlId);
});
