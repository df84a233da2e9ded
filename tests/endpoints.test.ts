/** What the endpoints of a crawl answer, asked well and asked badly, over HTTP as a browser or a script asks them. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { crawling } from './support/crawling';
import { testDatabase } from './support/database';
import type { TestDatabase } from './support/database';
import { startApp } from './support/program';
import { linking, standIn } from './support/standIn';
import type { StandIn } from './support/standIn';

let database: TestDatabase;
let site: StandIn;
let app: Awaited<ReturnType<typeof startApp>>;
let crawl: string;
let waiting: string;
/** A crawl of another site. */
let other: number;

beforeAll(async () => {
  database = await testDatabase();
  site = await standIn((path) => {
    if (path === '/') return linking('Home', '/trams', '/buses', '/=formula');
    if (path === '/trams') return '<title>Trams</title>\n<a href="/">home</a>\n<a href="/gone">＝1+1</a>';
    if (path === '/buses' || path === '/=formula') return linking('=Buses', '/trams');
    return undefined;
  });
  const { begin, finish } = crawling(() => database.db);
  const done = await begin(`${site.origin}/`);
  await finish(done);
  waiting = `sites/1/crawls/${await begin(`${site.origin}/`, {}, null)}`;
  crawl = `sites/1/crawls/${done}`;
  other = await begin(`${site.origin}/trams`);
  await finish(other);
  app = await startApp(database.url);
});
afterAll(async () => {
  await app?.stop();
  await site?.close();
  await database?.drop();
});

type Query = Record<string, string>;
const at = (path: string) => site.origin + path;
const ask = (path: string, query: Query = {}, init?: RequestInit) =>
  fetch(`${app.address}${path}?${new URLSearchParams(query)}`, {
    redirect: 'manual',
    headers: { accept: 'application/json' },
    ...init,
  });
const told = async <T>(path: string, query: Query = {}): Promise<T> => {
  const answer = await ask(path, query);
  expect([path, answer.status]).toEqual([path, 200]);
  return (await answer.json()) as T;
};
const send = (path: string, method: string, body: unknown) =>
  ask(
    path,
    {},
    { method, body: JSON.stringify(body), headers: { 'content-type': 'application/json', accept: 'application/json' } },
  );

describe('a window of rows', () => {
  type Rows = { total: number; rows: { cells: unknown[] }[]; fault: { message: string } | null };
  it('has the columns that are asked for, in the order of the sort', async () => {
    const { total, rows, fault } = await told<Rows>(`${crawl}/rows`, {
      columns: 'url,depth',
      sort: 'url:desc',
      size: '2',
    });
    expect(total).toBe(5);
    expect(fault).toBeNull();
    expect(JSON.stringify(rows)).toContain('/trams');
    expect(rows).toHaveLength(2);
  });
  it('is empty past the end, and tells the number of rows by itself', async () => {
    expect(await told<Rows>(`${crawl}/rows`, { from: '1000' })).toMatchObject({ total: 5, rows: [] });
    expect(await told<Rows>(`${crawl}/rows`, { size: '0' })).toMatchObject({ total: 5, rows: [] });
  });
  it('says what is wrong with a selection, and where', async () => {
    const answer = await ask(`${crawl}/rows`, { select: 'depth >' });
    expect(answer.status).toBe(400);
    expect(await answer.json()).toMatchObject({
      total: 0,
      rows: [],
      fault: { message: expect.stringMatching(/\w/) as string },
    });
  });
});

describe('what cannot be answered is said in words', () => {
  it.each<[string, () => string, Query, number, RegExp]>([
    ['a crawl that is not there', () => 'sites/1/crawls/999/rows', {}, 404, /no such crawl/],
    ['a crawl of another site', () => crawl.replace('sites/1', 'sites/2') + '/rows', {}, 404, /no such crawl/],
    ['a number that is none', () => 'sites/1/crawls/x/rows', {}, 404, /no such page/i],
    ['a list that is not there', () => `${crawl}/rows`, { list: 'trains' }, 400, /no such list/],
    ['a fact that is not there', () => `${crawl}/rows`, { list: 'groups', by: 'colour' }, 400, /no such fact/],
    ['too large a window', () => `${crawl}/rows`, { size: '501' }, 400, /500/],
    ['a window before the beginning', () => `${crawl}/rows`, { from: '-1' }, 400, /0/],
    ['a format that is not there', () => `${crawl}/export`, { format: 'xls' }, 400, /csv, tsv, json/],
    [
      'a page that is not known',
      () => `${crawl}/dossier`,
      { page: 'https://x.example/' },
      404,
      /does not know the page/,
    ],
    ['a dossier of nothing', () => `${crawl}/dossier`, {}, 400, /./],
    ['a reader that is not there', () => `${crawl}/dossier`, { page: 'x', reader: 'cat' }, 400, /visitor/],
    ['a source that is not kept', () => `${crawl}/source`, { page: '/gone' }, 404, /not stored/],
    ['lines before the first', () => `${crawl}/source`, { page: '/trams', from: '0' }, 400, /1/],
    [
      'a file of a selection that cannot be read',
      () => `${crawl}/export`,
      { select: 'depth > nonsense' },
      400,
      /number/,
    ],
    ['distributions of one', () => `${crawl}/summary`, { select: 'orphan and', columns: 'depth' }, 400, /selection/],
    ['a site whose number is none', () => 'settings', { site: 'abc' }, 404, /no such site/],
    ['a site that is not there', () => 'settings', { site: '999' }, 404, /no such site/],
    ['settings of no site', () => 'sites/999/settings.json', {}, 404, /no such site/],
  ])('%s', async (_, path, query, status, words) => {
    const page: Query = query.page?.startsWith('/') ? { page: at(query.page) } : {};
    const answer = await ask(path(), { ...query, ...page });
    const said = await answer.text();
    expect([answer.status, said]).toEqual([status, expect.stringMatching(words)]);
    expect(said).not.toMatch(/\n\s+at |node_modules|select .* from/);
  });
  it('and a crawl that has no snapshot yet sends on to where it can be watched', async () => {
    const answer = await ask(`${waiting}/rows`);
    expect([answer.status, answer.headers.get('location')]).toEqual([307, `/${waiting}/watch`]);
  });
});

describe('a file of a list', () => {
  it.each([
    ['csv', 'text/csv', /^url,title\r\n/],
    ['tsv', 'text/tab-separated-values', /^Address\tTitle\r\n/],
    ['json', 'application/json', /^\[\s*\{/],
  ])('is %s', async (format, type, begins) => {
    const answer = await ask(`${crawl}/export`, { format, columns: 'url,title', select: 'indexable' });
    expect(answer.headers.get('content-type')).toContain(type);
    expect(answer.headers.get('content-disposition')).toMatch(
      new RegExp(`attachment; filename="pages-.*\\.${format}"`),
    );
    expect(await answer.text()).toMatch(begins);
  });
  it('has no cell that a spreadsheet would run', async () => {
    const text = await (await ask(`${crawl}/export`, { columns: 'title' })).text();
    expect(text).toContain("'=Buses");
    expect(text).not.toMatch(/^=/m);
  });
  it('has none that a spreadsheet of another script would run, either', async () => {
    const csv = (list: string) => ask(`${crawl}/export`, { list, columns: 'anchor,value,title' }).then((a) => a.text());
    expect(await csv('links')).toContain("'＝1+1");
    expect(await csv('links')).not.toMatch(/(^|,)[＝＋－＠]/m);
  });
  it('is not made for rows that are named in another way', async () => {
    const headers = { origin: new URL(app.address).origin, 'content-type': 'text/plain' };
    for (const body of ['1-', 'all', '5-1', '1-9999999999']) {
      const answer = await ask(`${crawl}/export`, { columns: 'url' }, { method: 'POST', body, headers });
      expect([body, answer.status]).toEqual([body, 400]);
    }
  });
  it('takes the numbers of a million picked rows, and says so of more than it takes', async () => {
    const headers = { origin: new URL(app.address).origin, 'content-type': 'text/plain' };
    const post = (body: string) => ask(`${crawl}/export`, { columns: 'url' }, { method: 'POST', body, headers });
    const million = Array.from({ length: 1_000_000 }, (_, i) => 3 * i).join();
    const answer = await post(million);
    expect(answer.status).toBe(200);
    expect((await answer.text()).trim().split('\r\n')).toHaveLength(3);
    const refused = await post('1,'.repeat(9 << 20));
    expect([refused.status, await refused.text()]).toEqual([413, expect.stringMatching(/more than Edge Map takes in/)]);
  });
  it('holds the picked rows only, when some are picked', async () => {
    const { rows } = await told<{ rows: { id: number }[] }>(`${crawl}/rows`, { sort: 'url', size: '2' });
    const body = rows.map(({ id }) => id).join(',');
    const headers = { origin: new URL(app.address).origin, 'content-type': 'text/plain' };
    const answer = await ask(`${crawl}/export`, { sort: 'url', columns: 'url' }, { method: 'POST', body, headers });
    expect(answer.status).toBe(200);
    expect((await answer.text()).trim().split('\r\n')).toHaveLength(3);
  });
});

describe('one page', () => {
  it('is told whole', async () => {
    const dossier = await told<Record<string, unknown>>(`${crawl}/dossier`, { page: at('/trams'), sort: 'url' });
    expect(dossier).toMatchObject({ hasSource: true, place: { of: 5 } });
    expect(JSON.stringify(dossier)).toContain(at('/gone'));
  });
  it('is told without another on its route', async () => {
    const { route } = await told<{ route: unknown[] }>(`${crawl}/dossier`, {
      page: at('/gone'),
      without: at('/trams'),
    });
    expect(route).toEqual([]);
    const missing = await ask(`${crawl}/dossier`, { page: at('/gone'), without: 'https://x.example/' });
    expect(missing.status).toBe(404);
  });
  it('has its source by lines, with what is marked', async () => {
    const { lines } = await told<{ lines: { runs: { text: string; marked?: boolean }[] }[] }>(`${crawl}/source`, {
      page: at('/trams'),
      marks: '3:1',
      from: '2',
      size: '2',
    });
    expect(lines).toHaveLength(2);
    const marked = lines[1].runs.filter(({ marked }) => marked).map(({ text }) => text);
    expect(marked.join('')).toBe('<a href="/gone">＝1+1</a>');
  });
});

describe('for whoever writes a selection', () => {
  it('there are the values that a fact has', async () => {
    expect(await told(`${crawl}/values`, { fact: 'title', begins: 'Tr' })).toEqual(['Trams']);
    expect(await told(`${crawl}/values`, { fact: 'colour', begins: '' })).toEqual([]);
  });
  it('there are the distributions of columns', async () => {
    const summaries = await told<object>(`${crawl}/summary`, { columns: 'depth,status' });
    expect(Object.keys(summaries)).toHaveLength(2);
  });
  it('selections are saved under names, found again, and deleted', async () => {
    const saved = { name: 'Lost', over: 'pages', text: 'not reached' };
    expect((await send('sites/1/selections', 'POST', saved)).status).toBe(200);
    const bad = await send('sites/1/selections', 'POST', { ...saved, text: 'depth >' });
    expect([bad.status, await bad.text()]).toEqual([400, expect.stringMatching(/\w/)]);
    const unnamed = await send('sites/1/selections', 'POST', { ...saved, name: ' ' });
    expect(await unnamed.text()).toContain('A name is needed.');
    expect(
      (
        await ask(
          'sites/1/selections',
          {},
          { method: 'POST', body: '{', headers: { 'content-type': 'application/json' } },
        )
      ).status,
    ).toBe(400);
    expect((await send('sites/1/selections', 'DELETE', { name: 'Lost', over: 'pages' })).status).toBe(200);
    expect((await send('sites/999/selections', 'POST', saved)).status).toBe(404);
  });
});

describe('for programs', () => {
  it('progress is told as events, and ends with the crawl', async () => {
    const answer = await ask(`${crawl}/progress`);
    expect(answer.headers.get('content-type')).toBe('text/event-stream');
    const events = (await answer.text()).trim().split('\n\n');
    expect(events).toHaveLength(1);
    expect(JSON.parse(events[0].replace(/^data: /, ''))).toMatchObject({ state: 'done', known: 5, done: 5 });
  });
  it('progress is read once, however many watch', async () => {
    const leave = new AbortController();
    const streams = await Promise.all(
      Array.from({ length: 300 }, () => ask(`${waiting}/progress`, {}, { signal: leave.signal })),
    );
    const first = await Promise.all(
      streams.map(async ({ body }) => new TextDecoder().decode((await body!.getReader().read()).value)),
    );
    leave.abort();
    for (const event of first) expect(event).toMatch(/^data: \{"state":"waiting"/);
  });
  it('settings come as a file without secrets', async () => {
    const answer = await ask('sites/1/settings.json');
    expect(answer.headers.get('content-disposition')).toMatch(/attachment; filename="settings-127\.0\.0\.1/);
    expect(await answer.json()).not.toHaveProperty('settings.basic');
  });
});

describe('another website', () => {
  it('is refused whatever it asks for, and cannot show Edge Map in a frame', async () => {
    const from = (site: string, method = 'GET') =>
      ask(`${crawl}/overview`, {}, { method, headers: { 'sec-fetch-site': site, accept: 'text/html' } });
    expect((await from('cross-site')).status).toBe(403);
    expect((await from('cross-site', 'POST')).status).toBe(403);
    for (const site of ['same-origin', 'none']) expect((await from(site)).status).toBe(200);
    const { headers } = await from('none');
    expect(headers.get('x-frame-options')).toBe('DENY');
    expect(headers.get('x-content-type-options')).toBe('nosniff');
    expect(headers.get('referrer-policy')).toBe('same-origin');
    const policy = headers.get('content-security-policy')!;
    expect(policy).toMatch(/frame-ancestors 'none'/);
    expect(policy).toMatch(/script-src 'self' 'nonce-/);
    expect(policy).not.toMatch(/script-src[^;]*unsafe/);
  });
});

describe('a selection that is never read for all', () => {
  it('fetches nothing again when it cannot be read', async () => {
    const { origin } = new URL(app.address);
    const body = new URLSearchParams({ select: 'depth > nonsense' });
    const headers = { origin, 'content-type': 'application/x-www-form-urlencoded', accept: 'application/json' };
    const answer = await fetch(`${app.address}${crawl}/reach?/again`, {
      method: 'POST',
      body,
      headers,
      redirect: 'manual',
    });
    const said = await answer.text();
    expect([answer.status, said]).toEqual([400, expect.stringMatching(/cannot be answered/)]);
  });
});

describe('what a site keeps for itself', () => {
  const note = { id: null, day: '2026-11-20', text: 'Relaunch' };
  const bound = { name: 'Broken pages', over: 'pages', text: 'broken', atMost: 0 };
  const schedule = { every: 'week', at: '03:00', day: 1, zone: 'Europe/Berlin', paused: false };
  it.each<[string, string, string, object]>([
    ['a note', 'notes', 'POST', note],
    ['a bound', 'watch-list', 'POST', bound],
    ['a bound that must not rise', 'watch-list', 'POST', { ...bound, atMost: null }],
    ['a bound of a finding', 'watch-list', 'POST', { ...bound, over: 'finding', text: 'links_to_broken' }],
    ['a schedule', 'schedule', 'PUT', schedule],
    ['how many crawls are kept', 'kept', 'PUT', { keep: 5 }],
  ])('takes %s', async (_, path, method, body) =>
    expect((await send(`sites/1/${path}`, method, body)).status).toBe(200),
  );
  it.each<[string, string, string, object, number, string]>([
    ['a note without words', 'notes', 'POST', { ...note, text: ' ' }, 400, 'A note needs words.'],
    ['a note on no day', 'notes', 'POST', { ...note, day: '2026-13-40' }, 400, 'A date is written as 2026-11-28.'],
    ['a note on a day that its month lacks', 'notes', 'POST', { ...note, day: '2026-02-31' }, 400, 'A date is written'],
    ['a note that there is not', 'notes', 'POST', { ...note, id: 99_999 }, 404, 'There is no such note.'],
    ['a bound over nonsense', 'watch-list', 'POST', { ...bound, text: 'depht > 3' }, 400, 'cannot be read'],
    ['a bound of no finding', 'watch-list', 'POST', { ...bound, over: 'finding' }, 400, 'There is no such finding.'],
    ['a bound that there is not', 'watch-list', 'DELETE', { id: 99_999 }, 404, 'There is no such bound.'],
    ['a time that there is not', 'schedule', 'PUT', { ...schedule, at: '25:00' }, 400, 'A time is written as 03:30.'],
    ['a zone that there is not', 'schedule', 'PUT', { ...schedule, zone: 'Mars' }, 400, 'There is no such time zone.'],
    ['keeping none', 'kept', 'PUT', { keep: 0 }, 400, ''],
    ['a pin on the crawl of another', 'kept', 'POST', { crawl: 99_999, pinned: true }, 404, 'There is no such crawl.'],
  ])('refuses %s, and says why', async (_, path, method, body, status, message) => {
    const answer = await send(`sites/1/${path}`, method, body);
    expect(answer.status).toBe(status);
    expect(((await answer.json()) as { message: string }).message).toContain(message);
  });
});

describe('a number that is none', () => {
  const nonsense = ['', 'x', '-1', '0', '1.5', '1e400', '9'.repeat(30), '1 or 1=1', '[object Object]'];
  it.each<[string, string, string]>([
    ['GET', 'sites/1/imports', 'id'],
    ['DELETE', 'sites/1/imports', 'id'],
    ['POST', 'sites/1/imports', 'crawl'],
    ['GET', 'sites/1/drafts', 'id'],
  ])('names nothing: %s %s?%s=…', async (method, path, name) => {
    for (const text of nonsense) {
      const answer = await ask(path, { [name]: text }, { method });
      expect([text, answer.status]).toEqual([text, 404]);
    }
  });
  it.each(['notes', 'drafts', 'ignored', 'watch-list'])('is refused in the body of DELETE %s', async (path) => {
    for (const id of ['x', -1, 0, 1.5, 1e300, null, {}])
      expect([id, (await send(`sites/1/${path}`, 'DELETE', { id })).status]).toEqual([id, 400]);
  });
  it('names no site, and no crawl', async () => {
    for (const text of nonsense.filter(Boolean).map(encodeURIComponent))
      for (const path of [`sites/${text}/notes`, `sites/1/crawls/${text}/overview`])
        expect([path, (await ask(path)).status]).toEqual([path, 404]);
  });
});

it('a form that does not say so is told what is missing', async () => {
  const body = new TextEncoder().encode('site=1');
  const answer = await ask('', { '/rename': '' }, { method: 'POST', body, headers: { accept: 'application/json' } });
  expect(answer.status).toBe(415);
  expect(JSON.stringify(await answer.json())).toContain('does not say that it is a form');
});

describe('an earlier crawl', () => {
  it.each<[string, Query, number, string]>([
    ['is told when there is none', { list: 'changes' }, 400, 'There is no earlier crawl'],
    ['is a crawl', { list: 'changes', since: 'x' }, 404, 'There is no such crawl.'],
    ['is paired by a map that can be read', { select: 'new', map: 'nonsense' }, 400, '“nonsense” maps nothing'],
  ])('%s', async (_, query, status, message) => {
    const answer = await ask(`${crawl}/rows`, query);
    expect(answer.status).toBe(status);
    expect(JSON.stringify(await answer.json())).toContain(message);
  });
  it('is compared with page by page', async () => {
    const query = { page: at('/trams'), since: crawl.split('/')[3] };
    const { lines } = await told<{ lines: object[] }>(`${crawl}/difference`, query);
    // Nothing differs from itself.
    expect(lines).toEqual([{ left: 2 }]);
    expect((await ask(`${crawl}/difference`, { ...query, since: '99999' })).status).toBe(404);
    expect((await ask(`${crawl}/difference`, { ...query, page: at('/never') })).status).toBe(404);
    expect((await ask(`${crawl}/difference`, { page: at('/trams') })).status).toBe(404);
  });
  it('of another site is compared with only where a rule says which addresses are the same', async () => {
    const query = { page: at('/trams'), since: String(other) };
    expect((await ask(`${crawl}/difference`, query)).status).toBe(404);
    const host = new URL(site.origin).host;
    expect((await ask(`${crawl}/difference`, { ...query, map: `${host}=${host}` })).status).toBe(200);
  });
});
