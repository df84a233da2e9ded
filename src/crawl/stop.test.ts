/** What a person asks of a crawl is done within seconds, whatever the crawl waits for. */
import type { ServerResponse } from 'node:http';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { crawlState, leaseJob, requestCrawl } from '$server/index';
import { crawling, until } from '../../tests/support/crawling';
import { testDatabase } from '../../tests/support/database';
import type { TestDatabase } from '../../tests/support/database';
import { linking, standIn } from '../../tests/support/standIn';
import type { StandIn, StandInPage } from '../../tests/support/standIn';
import type { Interruption } from '.';

let test: TestDatabase;
beforeAll(async () => (test = await testDatabase()));
afterAll(() => test.drop());
const { begin, finish } = crawling(() => test.db);

const museum = { '/': linking('Museum', '/visit'), '/visit': linking('Visit', '/') };
/** An answer that never comes, or never ends. */
const silent: StandInPage = () => {};
const endless = (_: unknown, response: ServerResponse) => {
  response.writeHead(200, { 'content-type': 'application/xml' });
  response.write('<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">');
};
const waits: Record<string, { pages: Record<string, StandInPage>; asked: string }> = {
  'the start page': { pages: { '/': silent }, asked: '/' },
  'robots.txt': { pages: { ...museum, '/robots.txt': silent }, asked: '/robots.txt' },
  'a page': { pages: { ...museum, '/visit': silent }, asked: '/visit' },
  'a sitemap that does not answer': { pages: { ...museum, '/sitemap.xml': silent }, asked: '/sitemap.xml' },
  'a sitemap that does not end': { pages: { ...museum, '/sitemap.xml': endless }, asked: '/sitemap.xml' },
};

describe.each(Object.entries(waits))('a crawl that waits for %s', (_, { pages, asked }) => {
  let site: StandIn;
  beforeAll(async () => (site = await standIn(pages)));
  afterAll(() => site.close());

  /** Interrupts a crawl when it waits for nothing else. */
  async function interrupted(how: Interruption) {
    const crawlId = await begin(`${site.origin}/`);
    const interrupt = new AbortController();
    const before = site.asked.length;
    const ended = finish(crawlId, interrupt.signal);
    await until(() => site.asked.slice(before).includes(asked), `${asked} was asked for`);
    // Everything that answers has been stored by then.
    await new Promise((resolve) => setTimeout(resolve, 1500));
    interrupt.abort(how);
    return ended;
  }

  it('is stopped, and not taken for a failed or a finished one', async () => {
    const { crawlId, ending } = await interrupted('stop');
    expect(ending).toEqual({ state: 'stopped', reason: { code: 'stopped' }, limited: false });
    const state = (await crawlState(test.db, crawlId))!;
    expect(state).toMatchObject({ state: 'stopped', request: null });
    expect(state.analysedAt).not.toBeNull();
  });
  it.each([
    ['pause', 'paused'],
    ['shutdown', 'waiting'],
  ] as const)('is left to be resumed after %s', async (how, state) => {
    const { crawlId, ending } = await interrupted(how);
    expect(ending).toBeNull();
    expect((await crawlState(test.db, crawlId))!.state).toBe(state);
  });
});

it('a crawl that is deleted while it waits is not leased any more', async () => {
  const crawlId = await begin('https://deleted.example/', {}, null);
  await requestCrawl(test.db, crawlId, 'stop');
  await test.db.$client.query('update crawl set deleted_at = current_timestamp(3) where id = ?', [crawlId]);
  await test.db.$client.query(`update job set state = 'waiting' where crawl_id = ?`, [crawlId]);
  // Those of the tests above wait to be resumed.
  for (let lease = await leaseJob(test.db, 'any'); lease; lease = await leaseJob(test.db, 'any'))
    expect(lease.crawlId).not.toBe(crawlId);
});
