import { randomBytes } from 'node:crypto';
import { gzipSync } from 'node:zlib';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import type { CrawlSettings } from '$core/settings';
import type { FactName } from '$core/facts';
import { summarize } from '$core/formats';
import { sentence } from '$core/messages';
import { getCrawl, pageSource } from '$server/index';
import { crawling, reader } from '../../tests/support/crawling';
import { testDatabase } from '../../tests/support/database';
import type { TestDatabase } from '../../tests/support/database';
import { linking, standIn } from '../../tests/support/standIn';
import type { StandIn, StandInPage } from '../../tests/support/standIn';

let test: TestDatabase;
let site: StandIn | null = null;
beforeAll(async () => (test = await testDatabase()));
afterAll(() => test.drop());
afterEach(() => site?.close());

const { crawl } = crawling(() => test.db);

describe('a crawl', () => {
  it('finds pages, redirects, closed pages and what only the sitemap knows', async () => {
    const urlset = (...paths: string[]) =>
      `<urlset>${paths.map((path) => `<url><loc>${site!.origin}${path}</loc></url>`).join('\n')}</urlset>`;
    site = await standIn((path): StandInPage | undefined => {
      switch (path) {
        case '/robots.txt':
          return {
            headers: { 'content-type': 'text/plain' },
            body: `User-agent: *\nDisallow: /shut\nSitemap: ${site!.origin}/index.xml`,
          };
        case '/index.xml':
          return `<sitemapindex><sitemap><loc>${site!.origin}/s.xml.gz</loc></sitemap><sitemap><loc>/missing.xml</loc></sitemap></sitemapindex>`;
        case '/s.xml.gz':
          return { headers: { 'content-type': 'application/gzip' }, body: gzipSync(urlset('/a', '/lost')) };
        case '/':
          return linking('Home', '/a', '/old', '/shut/x', '/doc.pdf', '/gone', 'https://else.example/');
        case '/a':
          return {
            headers: { 'x-robots-tag': 'noindex', link: '</canon>; rel="canonical"' },
            body: linking('A', '/b#part', '/'),
          };
        case '/b':
          return { headers: { 'content-encoding': 'gzip' }, body: gzipSync(linking('B')) };
        case '/canon':
          return linking('Canon');
        case '/old':
          return { status: 301, headers: { location: '/older' } };
        case '/older':
          return { status: 302, headers: { location: '/b?new' } };
        case '/b?new':
          return '<meta http-equiv=refresh content="0;url=/b"><title>New</title>';
        case '/doc.pdf':
          return { headers: { 'content-type': 'application/pdf' }, body: '%PDF' };
        case '/lost':
          return linking('Lost', '/lost/child');
        case '/lost/child':
          return linking('Child');
        default:
          return undefined;
      }
    });
    const { ending, snapshot } = await crawl(`${site.origin}/`);
    expect(ending).toEqual({ state: 'done', reason: null, limited: false });
    const fact = reader(snapshot, site.origin);
    const facts = (name: FactName, ...paths: string[]) => paths.map((path) => fact(path, name));
    expect(facts('depth', '/', '/a', '/old', '/older', '/b?new', '/b', '/lost')).toEqual([0, 1, 1, 1, 1, 1, null]);
    expect(facts('reach', '/canon', '/lost', '/lost/child')).toEqual(['orphan', 'orphan', 'island']);
    expect(facts('verdict', '/', '/a', '/b', '/old', '/b?new', '/shut/x', '/doc.pdf', '/gone')).toEqual([
      'indexable',
      'noindex',
      'indexable',
      'redirect',
      'redirect',
      'blocked',
      'not_html',
      'broken',
    ]);
    expect(fact('/shut/x', 'verdict_reason')).toBe('Disallow: /shut (line 2)');
    expect(fact('/old', 'verdict_reason')).toBe(`${site.origin}/b after 3 redirects`);
    expect(fact('/lost', 'seen_in')).toEqual(['sitemap']);
    expect(fact('/b', 'title')).toBe('B');
    expect(site.asked).not.toContain('/shut/x');
    // What links lead to has its turn before what only sitemaps know.
    expect(site.asked.indexOf('/b')).toBeLessThan(site.asked.indexOf('/lost'));
    expect(new Set(site.asked).size).toBe(site.asked.length);
  });

  it('looks past robots.txt when told to, and reports the rule all the same', async () => {
    site = await standIn({
      '/robots.txt': 'User-agent: edgemap\nDisallow: /',
      '/': linking('Home', '/x'),
      '/x': linking('X'),
    });
    const { snapshot } = await crawl(`${site.origin}/`, { robots: 'look-past' });
    const fact = reader(snapshot, site.origin);
    expect([fact('/x', 'verdict'), fact('/x', 'status'), fact('/x', 'depth')]).toEqual(['blocked', 200, 1]);
  });

  it('keeps to limits of pages and depth, and says what it left', async () => {
    site = await standIn((path) => linking(path, `${path === '/' ? '' : path}/a`, `${path === '/' ? '' : path}/b`));
    const deep = await crawl(`${site.origin}/`, { depth: 2 });
    expect(deep.ending).toMatchObject({ state: 'done', limited: false });
    expect(deep.snapshot.count).toBe(15);
    expect(reader(deep.snapshot, site.origin)('/a/a/a', 'verdict_reason')).toMatch(/deeper/);
    site.asked.length = 0;
    const few = await crawl(`${site.origin}/`, { limit: 5, connections: 3, usualSitemaps: false });
    expect(few.ending).toMatchObject({ state: 'done', limited: true });
    expect(site.asked.filter((path) => path !== '/robots.txt')).toHaveLength(5);
    expect(reader(few.snapshot, site.origin)('/b/b/a', 'verdict_reason') ?? '').toMatch(/limit|no such page/);
  });

  it('does not follow redirects without end', async () => {
    site = await standIn((path) => {
      const n = Number(/^\/r(\d+)$/.exec(path)?.[1]);
      return path === '/' ? linking('Home', '/r1') : { status: 302, headers: { location: `/r${n + 1}` } };
    });
    const { ending, snapshot } = await crawl(`${site.origin}/`, { usualSitemaps: false });
    expect(ending?.state).toBe('done');
    expect(site.asked.length).toBeLessThan(20);
    expect(reader(snapshot, site.origin)('/r12', 'verdict_reason')).toMatch(/too many redirects/);
  });

  it('goes where overrides point, under the name of the address', async () => {
    site = await standIn({
      '/': (request, response) =>
        void response.setHeader('content-type', 'text/html').end(linking(String(request.headers.host))),
    });
    const override = { host: 'www.museum.example', toHost: '127.0.0.1', toPort: Number(new URL(site.origin).port) };
    const { snapshot } = await crawl('http://www.museum.example/', { overrides: [override] });
    expect(reader(snapshot, '')('http://www.museum.example/', 'title')).toBe('www.museum.example');
  });
});

describe('a start that cannot be crawled', () => {
  const reasonFor = async (start: string, given?: Partial<CrawlSettings>) => {
    const { ending } = await crawl(start, given);
    expect(ending?.state).toBe('failed');
    return sentence(ending!.reason!);
  };
  it('has no such host', async () => expect(await reasonFor('https://nowhere.invalid/')).toMatch(/no DNS record/));
  it('refuses', async () => expect(await reasonFor('http://127.0.0.1:9/')).toMatch(/refused/));
  it('is missing, of another type, closed, or elsewhere', async () => {
    site = await standIn({
      '/robots.txt': 'User-agent: *\n\nDisallow: /closed',
      '/pdf': { headers: { 'content-type': 'application/pdf' } },
      '/out': { status: 301, headers: { location: 'https://else.example/' } },
      '/round': { status: 301, headers: { location: '/round' } },
    });
    expect(await reasonFor(`${site.origin}/missing`)).toMatch(/answers 404/);
    expect(await reasonFor(`${site.origin}/pdf`)).toMatch(/application\/pdf, not an HTML page/);
    expect(await reasonFor(`${site.origin}/closed`)).toMatch(/closes the start page: Disallow: \/closed \(line 3\)/);
    expect(await reasonFor(`${site.origin}/out`)).toMatch(
      /redirects to https:\/\/else\.example\/, which is another site/,
    );
    expect(await reasonFor(`${site.origin}/round`)).toMatch(/leads to no page/);
  });
  it('has a certificate nobody vouches for, told from a refusal', async () => {
    const { serveDemo } = await import('../../demo/server');
    const { certificate } = await import('../../tests/support/certificate');
    const demo = await serveDemo(0, certificate());
    const overrides = [{ host: 'www.larkfield.example', toHost: '127.0.0.1', toPort: demo.port }];
    try {
      expect(await reasonFor('https://www.larkfield.example/', { overrides })).toMatch(/certificate/);
      const { ending } = await crawl('https://www.larkfield.example/', {
        overrides,
        acceptCertificates: true,
        limit: 5,
      });
      expect(ending?.state).toBe('done');
    } finally {
      await demo.close();
    }
  });
});

it('the demo website shows every verdict, orphans, an island and where its sitemaps disagree', async () => {
  const { serveDemo } = await import('../../demo/server');
  const { certificate } = await import('../../tests/support/certificate');
  const demo = await serveDemo(0, certificate());
  try {
    const overrides = ['www.larkfield.example', 'larkfield.example'].map((host) => ({
      host,
      toHost: '127.0.0.1',
      toPort: demo.port,
    }));
    const { snapshot } = await crawl('https://www.larkfield.example/', {
      overrides,
      acceptCertificates: true,
      depth: 11,
    });
    // Of one page it names another edition than the page does.
    expect(snapshot.alternates).toMatchObject([
      { language: 'en', address: 'https://www.larkfield.example/visit/prices' },
    ]);
    const { verdict, reach, pages, sitemap_only } = summarize(snapshot);
    expect(pages).toBeGreaterThan(400);
    // Nothing of the demo is without an answer; that takes a host that is down.
    expect(Object.keys(verdict).sort()).toEqual([
      'blocked',
      'broken',
      'canonicalised',
      'failing',
      'indexable',
      'noindex',
      'not_html',
      'redirect',
      'unvisited',
    ]);
    expect(reach.orphan).toBeGreaterThan(3);
    expect(reach.island).toBeGreaterThan(20);
    expect(sitemap_only).toBeGreaterThan(3);
    const fact = reader(snapshot, 'https://www.larkfield.example');
    expect(fact('/stories/night-buses-of-the-coast', 'reach')).toBe('orphan');
    expect(fact('/archive-2009/index.html', 'island')).toBe(1);
    expect(fact('/tickets', 'verdict_reason')).toBe('https://www.larkfield.example/visit/prices after 3 redirects');
    expect(fact('/promo/spring', 'verdict_reason')).toMatch(/loop/);
    expect(fact('/visit/guided-tours', 'verdict_reason')).toBe('Disallow: /visit/guided-tours (line 6)');
    expect(fact('/collections/rail', 'redirect_to')).toBe('https://www.larkfield.example/collections/trams/');
    expect(fact('/press/embargo', 'robots')).toBe('noindex, nofollow');
    expect(fact('/events/2027/09/', 'verdict')).toBe('unvisited');
  } finally {
    await demo.close();
  }
});

it('keeps the source of a page that is large even when compressed', async () => {
  const noise = randomBytes(8 << 20).toString('base64');
  site = await standIn({ '/': `<title>Large</title>\n<p>${noise}\n<a href="/">end</a>` });
  const { crawlId } = await crawl(`${site.origin}/`, { usualSitemaps: false });
  const row = (await getCrawl(test.db, crawlId))!;
  const source = await pageSource(test.db, row, `${site.origin}/`, [{ line: 3, column: 1 }], 3, 1);
  expect(source).toMatchObject({ total: 3, lines: [{ number: 3 }] });
  expect(source!.lines[0].runs.map(({ text }) => text).join('')).toBe('<a href="/">end</a>');
});
