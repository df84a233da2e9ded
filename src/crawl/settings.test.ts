/** What settings make of a crawl. */
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { noSecrets } from '$core/settings';
import { addressAt } from '$core/snapshot';
import { getCrawl, leaseJob, recrawl, resumeCrawl, trapsOf } from '$server/index';
import { crawling, reader } from '../../tests/support/crawling';
import { clientOf } from '../../tests/support/client';
import { testDatabase } from '../../tests/support/database';
import type { TestDatabase } from '../../tests/support/database';
import { linking, standIn } from '../../tests/support/standIn';
import type { StandIn, StandInPage } from '../../tests/support/standIn';

let test: TestDatabase;
let site: StandIn;
let other: StandIn | null = null;
beforeAll(async () => (test = await testDatabase()));
afterAll(() => test.drop());
afterEach(async () => {
  await site?.close();
  await other?.close();
  other = null;
});
const { begin, crawl, finish } = crawling(() => test.db);
const pagesAsked = () => site.asked.filter((path) => !/robots|sitemap/.test(path)).sort();

describe('scope', () => {
  it('leaves out what patterns say, and says so', async () => {
    site = await standIn({ '/': linking('Home', '/visit', '/shop?sort=1'), '/visit': linking('Visit', '/visit/x') });
    const { snapshot } = await crawl(`${site.origin}/`, { exclude: ['sort='], include: ['/$', '/visit$', '/shop'] });
    expect(pagesAsked()).toEqual(['/', '/visit']);
    const fact = reader(snapshot, site.origin);
    expect([fact('/shop?sort=1', 'verdict'), fact('/shop?sort=1', 'depth')]).toEqual(['unvisited', 1]);
    expect(fact('/visit/x', 'verdict_reason')).toMatch(/patterns/);
  });
  it('starts from several addresses, and fetches what lists know', async () => {
    site = await standIn({ '/': linking('Home'), '/en': linking('English'), '/old': linking('Old') });
    const { snapshot } = await crawl(`${site.origin}/`, {
      starts: [`${site.origin}/en`],
      lists: [`${site.origin}/old`],
    });
    const fact = reader(snapshot, site.origin);
    expect([fact('/en', 'depth'), fact('/old', 'reach'), fact('/old', 'seen_in')]).toEqual([0, 'orphan', ['list']]);
  });
  it('takes addresses that differ in dropped parameters for one', async () => {
    site = await standIn((path) =>
      path === '/' ? linking('Home', '/a?sid=1', '/a?sid=2', '/a?p=1&sid=3') : linking(path),
    );
    await crawl(`${site.origin}/`, { dropParameters: ['sid'], usualSitemaps: false });
    expect(pagesAsked()).toEqual(['/', '/a', '/a?p=1']);
  });
  it('does not follow kinds of links that it is told not to', async () => {
    const body =
      '<link rel=canonical href=/canon><a rel=nofollow href=/no>x</a><a href=/yes>y</a><iframe src=/frame></iframe>';
    site = await standIn((path) => (path === '/' ? body : linking(path)));
    const follow = {
      nofollow: false,
      canonical: false,
      paging: true,
      hreflang: true,
      amphtml: true,
      iframe: true,
      refresh: true,
    };
    const { snapshot } = await crawl(`${site.origin}/`, { follow, usualSitemaps: false });
    expect(pagesAsked()).toEqual(['/', '/frame', '/yes']);
    expect(reader(snapshot, site.origin)('/no', 'verdict_reason')).toMatch(/do not follow/);
    expect(reader(snapshot, site.origin)('/frame', 'seen_in')).toEqual(['declared']);
  });
});

/** Where a host is that the settings name: links alone never aim a crawl at a private address. */
const otherExample = () => [
  { host: 'other.example', toHost: '127.0.0.1', toPort: Number(new URL(other!.origin).port) },
];

describe('what is sent', () => {
  it('are secrets only to the hosts of starts, and never in clear where the start is safe', () => {
    const secrets = {
      headers: [{ name: 'X-Api-Key', value: 'k' }],
      cookie: 'key=1',
      basic: { user: 'u', password: 'p' },
    };
    const sent = (start: string, address: string) => {
      const client = clientOf({ start, hosts: ['press.museum.example'], keepCookies: true }, { secrets });
      return Object.keys(client.headersFor(address)).filter((name) => /authorization|x-api-key|cookie/.test(name))
        .length;
    };
    expect(sent('https://museum.example/', 'https://museum.example/a')).toBe(3);
    expect(sent('https://museum.example/', 'http://museum.example/a')).toBe(0);
    expect(sent('https://museum.example/', 'https://museum.example:8443/')).toBe(0);
    expect(sent('https://museum.example/', 'https://press.museum.example/')).toBe(0);
    // A site that sends its visitors on to https.
    expect(sent('http://museum.example/', 'https://museum.example/')).toBe(3);
  });
  it('are agent, language, headers, cookies and password, to the site only', async () => {
    const heard: Record<string, unknown>[] = [];
    const hear =
      (name: string, page: string): StandInPage =>
      (request, response) => {
        heard.push({ name, ...request.headers });
        response.setHeader('content-type', 'text/html').setHeader('set-cookie', 'seen=1; Path=/').end(page);
      };
    other = await standIn({ '/': hear('other', 'x') });
    site = await standIn({
      '/': hear('home', linking('Home', '/a', 'http://other.example/')),
      '/a': hear('a', linking('A')),
    });
    const secrets = {
      headers: [{ name: 'X-Preview', value: 'yes' }],
      cookie: 'key=1',
      basic: { user: 'u', password: 'p' },
    };
    await crawl(
      `${site.origin}/`,
      {
        userAgent: 'Tram/1',
        language: 'fr',
        keepCookies: true,
        external: 'check',
        connections: 1,
        overrides: otherExample(),
      },
      secrets,
    );
    const [home, a, outside] = heard;
    expect(home).toMatchObject({
      name: 'home',
      'user-agent': 'Tram/1',
      'accept-language': 'fr',
      'x-preview': 'yes',
      cookie: 'key=1',
      authorization: 'Basic dTpw',
    });
    expect(a).toMatchObject({ name: 'a', cookie: 'key=1; seen=1' });
    expect(outside).toMatchObject({ name: 'other', 'user-agent': 'Tram/1' });
    expect(Object.keys(outside)).not.toContain('authorization');
    expect(JSON.stringify(outside)).not.toMatch(/key=1|preview/);
  });
  it('is the product token by which rules are read', async () => {
    site = await standIn({
      '/robots.txt': 'User-agent: searchbot\nDisallow: /a\n\nUser-agent: *\nDisallow: /b',
      '/': linking('Home', '/a', '/b'),
      '/b': '<meta name=searchbot content=noindex>',
    });
    const { snapshot } = await crawl(`${site.origin}/`, { token: 'SearchBot' });
    const fact = reader(snapshot, site.origin);
    expect([fact('/a', 'verdict'), fact('/b', 'verdict')]).toEqual(['blocked', 'noindex']);
    expect(fact('/b', 'page_rules')).toBe('meta searchbot: noindex (line 1)');
  });
  it('asks at most so often', async () => {
    site = await standIn((path) => linking(path, ...(path === '/' ? ['/1', '/2', '/3', '/4'] : [])));
    const { crawlId } = await crawl(`${site.origin}/`, { rate: 20, usualSitemaps: false, connections: 8 });
    // Six requests, robots.txt among them, are five pauses of 50 ms.
    expect(
      (await getCrawl(test.db, crawlId))!.endedAt!.getTime() - (await getCrawl(test.db, crawlId))!.startedAt!.getTime(),
    ).toBeGreaterThan(240);
  });
});

describe('what is checked besides pages', () => {
  it('are resources and outside addresses, without being read', async () => {
    other = await standIn({
      '/': 'x',
      '/head': (request, response) => void response.writeHead(request.method === 'HEAD' ? 405 : 200).end(),
    });
    const away = 'http://other.example';
    site = await standIn({
      '/': `<img src=/a.png><img src=/gone.png><script src=/s.js></script>${linking('Home', `${away}/`, `${away}/head`, `${away}/gone`)}`,
      '/a.png': { headers: { 'content-type': 'image/png' } },
    });
    const check = { image: true, script: false, style: false, other: false };
    const { snapshot } = await crawl(`${site.origin}/`, {
      check,
      external: 'check',
      externalLimit: 10,
      overrides: otherExample(),
      usualSitemaps: false,
    });
    const statuses = Object.fromEntries(
      snapshot.outside.map((address, i) => [
        address.replace(away, '').replace(site.origin, ''),
        snapshot.checks[i]?.status,
      ]),
    );
    expect(statuses).toEqual({
      '/a.png': 200,
      '/gone.png': 404,
      '/s.js': undefined,
      '/': 200,
      '/head': 200,
      '/gone': 404,
    });
    expect(snapshot.count).toBe(1);
    expect(other.asked).toContain('/head');
  });
  it('are fragments', async () => {
    site = await standIn({
      '/': `<p id=here>x</p>${linking('Home', '#here', '#gone', '/a#there', '/a#top', '/a#lost')}`,
      '/a': '<p id=there>',
    });
    const { snapshot } = await crawl(`${site.origin}/`);
    expect(reader(snapshot, site.origin)('/', 'missing_fragments')).toBe(2);
  });
});

describe('the trap guard', () => {
  it('cuts a calendar, lets a catalogue through, and starves nothing', async () => {
    const words = (n: number) => Array.from({ length: 60 }, (_, i) => `w${(n * 131 + i * i * 17) % 9973}`).join(' ');
    site = await standIn((path) => {
      const month = Number(/^\/calendar\/(\d+)$/.exec(path)?.[1] ?? NaN);
      const item = Number(/^\/item\/(\d+)$/.exec(path)?.[1] ?? NaN);
      const items = Array.from({ length: 120 }, (_, i) => `/item/${i}`);
      if (path === '/') return linking('Home', '/calendar/0', ...items, '/last/1/2/3');
      if (month >= 0)
        return `<main><p>No events in month ${month}, none at all.</p></main><nav>${linking('', `/calendar/${month + 1}`)}</nav>`;
      if (item >= 0) return `<main>${words(item)}</main>`;
      return path.startsWith('/last') ? linking('Last') : undefined;
    });
    const { crawlId, ending, snapshot } = await crawl(`${site.origin}/`, { trapLimit: 40, usualSitemaps: false });
    expect(ending).toMatchObject({ state: 'done' });
    expect(pagesAsked().filter((path) => path.startsWith('/calendar'))).toHaveLength(40);
    expect(pagesAsked().filter((path) => path.startsWith('/item'))).toHaveLength(120);
    const fact = reader(snapshot, site.origin);
    expect(fact('/last/1/2/3', 'verdict')).toBe('indexable');
    expect(fact('/calendar/40', 'verdict_reason')).toMatch(/grows without end/);
    const [trap, ...more] = await trapsOf(test.db, crawlId);
    expect(more).toEqual([]);
    expect(trap).toMatchObject({
      pattern: `${site.origin}/calendar/*`,
      fetched: 40,
      cut: 1,
      examples: [`${site.origin}/calendar/40`],
    });
  });
});

describe('limits of size and time', () => {
  it.each([
    ['megabytes', 0, { code: 'size_limit', megabytes: 1 }],
    ['minutes', 59_900, { code: 'time_limit', minutes: 1 }],
  ])('in %s end a crawl, which goes on when they are lifted', async (limit, ranMs, reason) => {
    const filler = `<!--${'x'.repeat(300_000)}-->`;
    site = await standIn((path) => {
      const n = Number(path.slice(1)) || 0;
      const body = linking(`${n}`, ...(n < 30 ? [`/${n + 1}`] : [])) + filler;
      return path === '/robots.txt'
        ? undefined
        : (_, response) => void setTimeout(() => response.setHeader('content-type', 'text/html').end(body), 100);
    });
    const crawlId = await begin(`${site.origin}/`, { [limit]: 1, usualSitemaps: false });
    // As if it had been running for so long.
    await test.db.$client.query('update crawl set ran_ms = ? where id = ?', [ranMs, crawlId]);
    const { ending } = await finish(crawlId);
    expect(ending).toEqual({ state: 'done', limited: true, reason });
    expect(pagesAsked().length).toBeLessThan(31);
    const { settings } = (await getCrawl(test.db, crawlId))!;
    await resumeCrawl(test.db, crawlId, { ...settings, [limit]: null });
    expect((await finish(crawlId, undefined, (await leaseJob(test.db, 'test'))!)).snapshot.count).toBe(31);
  });
});

describe('a selection that is fetched again', () => {
  it('makes a new crawl in which the rest is carried over', async () => {
    let version = 1;
    site = await standIn((path) => {
      const pages: Record<string, StandInPage> = {
        '/': linking(`Home ${version}`, '/a', '/b'),
        '/a': linking(`A ${version}`, ...(version > 1 ? ['/new'] : [])),
        '/b': linking(`B ${version}`, '/a'),
        '/sitemap.xml': `<urlset><url><loc>${site.origin}/lost</loc></url></urlset>`,
        '/lost': linking('Lost'),
      };
      return pages[path];
    });
    const first = await crawl(`${site.origin}/`);
    version = 2;
    site.asked.length = 0;
    const base = (await getCrawl(test.db, first.crawlId))!;
    const id = await recrawl(test.db, base, [`${site.origin}/a`]);
    const { ending, snapshot } = await finish(id, undefined, (await leaseJob(test.db, 'test'))!);
    expect(ending).toMatchObject({ state: 'done' });
    expect(pagesAsked()).toEqual(['/a']);
    const fact = reader(snapshot, site.origin);
    expect([fact('/a', 'title'), fact('/b', 'title'), fact('/', 'title')]).toEqual(['A 2', 'B 1', 'Home 1']);
    expect([fact('/a', 'carried'), fact('/b', 'carried')]).toEqual([false, true]);
    expect(fact('/new', 'verdict_reason')).toMatch(/Only a selection/);
    expect(fact('/lost', 'seen_in')).toEqual(['sitemap']);
    expect(Array.from({ length: snapshot.count }, (_, page) => addressAt(snapshot, page))).toHaveLength(
      first.snapshot.count + 1,
    );
  });
});

it('says that a site asks for a password', async () => {
  site = await standIn({ '/': { status: 401 } });
  const { ending } = await crawl(`${site.origin}/`, {}, noSecrets);
  expect(ending).toMatchObject({ state: 'failed', reason: { code: 'start_login' } });
});
