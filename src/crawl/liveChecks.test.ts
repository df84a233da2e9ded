import pino from 'pino';
import { afterAll, beforeAll, expect, it } from 'vitest';
import type { LiveCheck, LiveCheckKind } from '$core/liveChecks';
import { editOf } from '$core/draft';
import { settingsSchema } from '$core/settings';
import { askLiveCheck, endLiveCheck, leaseLiveCheck, liveChecksOf, saveSite } from '$server/index';
import { testDatabase } from '../../tests/support/database';
import type { TestDatabase } from '../../tests/support/database';
import { standIn } from '../../tests/support/standIn';
import type { StandIn } from '../../tests/support/standIn';
import { runLiveChecks } from './liveChecks';

let test: TestDatabase;
let site: StandIn;
let cookie: string | undefined;
beforeAll(async () => {
  test = await testDatabase();
  const urlset = (loc: string) =>
    `<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">\n<url><loc>${loc}</loc></url>\n</urlset>`;
  site = await standIn({
    '/good.xml': (request, response) => {
      cookie = request.headers.cookie;
      response.writeHead(200, { 'content-type': 'application/xml', age: '7200' }).end(urlset(`${site.origin}/a`));
    },
    '/bad.xml': urlset('/relative'),
    '/moved': { status: 301, headers: { location: '/a' } },
    '/a': '<title>A</title><meta name=robots content=noindex><main><a href="/b">Trams</a></main>',
    '/robots.txt': 'User-agent: *\nDisallow: /x\n',
    '/moved.xml': { status: 301, headers: { location: '/good.xml' } },
  });
});
afterAll(async () => {
  await site?.close();
  await test?.drop();
});

const siteOf = (start = `${site.origin}/`) =>
  saveSite(test.db, settingsSchema.parse({ start }), { headers: [], cookie: 'pass=42', basic: null });

/** Asks for a check, and runs a worker until it has ended. */
async function check(address: string, { allowPrivate = true }: { allowPrivate?: boolean } = {}) {
  const id = await siteOf();
  await askLiveCheck(test.db, id, 'sitemap', address, null);
  return ended(id, 'sitemap', address, allowPrivate);
}

/** What a check has found, once a worker has ended it. */
async function ended<K extends LiveCheckKind>(id: number, kind: K, address: string, allowPrivate = true) {
  const stop = new AbortController();
  const options = { db: test.db, log: pino({ enabled: false }), allowPrivate, signal: stop.signal };
  const running = runLiveChecks(options);
  let found: LiveCheck<K>;
  do found = (await liveChecksOf(test.db, id, kind, [address])).get(address)!;
  while (found.state === 'waiting' || found.state === 'running');
  stop.abort();
  await running;
  return found;
}

it('fetches a sitemap with what the site is asked with, and tells how it was answered', async () => {
  const { state, result } = await check(`${site.origin}/moved.xml`);
  expect(state).toBe('done');
  expect(result).toMatchObject({ kind: 'urlset', entries: 1, faultCount: 0 });
  const address = `${site.origin}/good.xml`;
  expect(result?.answer).toMatchObject({ status: 200, address, redirects: 1, type: 'application/xml', age: 7200 });
  expect(cookie).toBe('pass=42');
});
it('tells the faults by their lines', async () => {
  const { result } = await check(`${site.origin}/bad.xml`);
  expect(result?.faults.map(({ line, id }) => [line, id])).toEqual([[2, 'relative_loc']]);
});
it('tells that nothing is there', async () => {
  const { result } = await check(`${site.origin}/none.xml`);
  expect(result?.answer?.status).toBe(404);
  expect(result?.faults[0].message).toEqual({ code: 'status', status: 404, tries: 1 });
});
it('asks no private address unless that is allowed', async () => {
  const { result } = await check(`${site.origin}/good.xml`, { allowPrivate: false });
  expect(result?.faults[0].message).toMatchObject({ code: 'error', error: 'private' });
});
it('looks at the pages of edits, and at nothing that they link to', async () => {
  const id = await siteOf();
  const [start, a, moved] = ['/', '/a', '/moved'].map((path) => `${site.origin}${path}`);
  const edits = [
    editOf('noindex', a),
    editOf('reword_link', a, { target: '/b', value: 'All trams' }),
    editOf('redirect', moved, { target: '/b' }),
    editOf('remove_page', `${site.origin}/gone`),
    editOf('noindex', `${site.origin}/*`),
    editOf('robots', start, { value: 'User-agent: *\nDisallow: /y\n' }),
  ].map((edit, i) => ({ ...edit, id: String(i) }));
  await askLiveCheck(test.db, id, 'edits', start, { edits, addresses: [a, moved, `${site.origin}/gone`] });
  const { result } = await ended(id, 'edits', start);
  expect(result?.pages).toBe(4);
  expect(Object.values(result!.outcomes)).toEqual([
    { state: 'live', found: null },
    { state: 'not_yet', found: null },
    { state: 'otherwise', found: { code: 'found_redirect', address: a } },
    { state: 'live', found: null },
    { state: 'live', found: null },
    { state: 'not_yet', found: { code: 'found_robots', line: 2, text: 'Disallow: /x' } },
  ]);
});
it('of an address is kept once, the newest, and taken up again when its worker has gone', async () => {
  const id = await siteOf();
  const address = `${site.origin}/good.xml`;
  const first = await askLiveCheck(test.db, id, 'sitemap', address, null);
  expect((await leaseLiveCheck(test.db))?.id).toBe(first);
  expect(await leaseLiveCheck(test.db)).toBeNull();
  await test.db.$client.query('update live_check set lease_until = current_timestamp(3) - interval 1 second');
  expect((await leaseLiveCheck(test.db))?.id).toBe(first);
  const second = await askLiveCheck(test.db, id, 'sitemap', address, null);
  // The worker of the first one comes to its end while the second waits, and while another worker has it.
  await endLiveCheck(test.db, first, { fault: { code: 'internal' } });
  expect((await leaseLiveCheck(test.db))?.id).toBe(second);
  await endLiveCheck(test.db, first, { fault: { code: 'internal' } });
  const kept = (await liveChecksOf(test.db, id, 'sitemap', [address])).get(address);
  expect(kept).toMatchObject({ id: second, state: 'running', fault: null });
});
