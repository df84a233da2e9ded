/** robots.txt and sitemaps as they come over the network. */
import { gzipSync } from 'node:zlib';
import { afterEach, describe, expect, it } from 'vitest';
import { identify } from '$core/url';
import type { FetchedSitemap } from '$core/snapshot';
import { standIn } from '../../tests/support/standIn';
import type { StandIn, StandInPage } from '../../tests/support/standIn';
import { clientOf, unlimited } from '../../tests/support/client';
import { settingsSchema } from '$core/settings';
import { startParsers } from './parserPool';
import { fetchWith } from './retry';
import { fetchRobots, robotsCache } from './robots';
import { readSitemaps } from './sitemaps';
import type { SitemapQueue } from './sitemaps';
import type { QueuedSitemap } from '$server/index';

let site: StandIn | null = null;
afterEach(() => site?.close());
const signal = new AbortController().signal;
const settings = settingsSchema.parse({ start: 'https://museum.example/' });
const parsers = startParsers({ settings, selectionOnly: false }, signal, { threads: 0 });
const clientFor = (origin: string) => clientOf({ start: `${origin}/` });
const asking = (origin: string) => ({
  fetch: fetchWith(clientFor(origin), { limiter: unlimited, retries: 0, signal }),
  parse: parsers.parseRobots,
  token: 'edgemap',
});

describe('robots.txt', () => {
  const closes = async (pages: Record<string, StandInPage>) => {
    site = await standIn(pages);
    return (await fetchRobots(site.origin, asking(site.origin))).closedBy(`${site.origin}/shop`);
  };
  const shut = 'User-agent: *\nDisallow: /shop';
  const rule = { line: 2, directive: 'disallow', path: '/shop', group: '*' };
  it('closes what it says', async () => expect(await closes({ '/robots.txt': shut })).toEqual(rule));
  it('opens everything when it is missing or forbidden', async () => {
    expect(await closes({})).toBeNull();
    expect(await closes({ '/robots.txt': { status: 403, body: shut } })).toBeNull();
  });
  it('closes everything when the server fails', async () => {
    expect(await closes({ '/robots.txt': { status: 503 } })).toMatchObject({ directive: 'unreadable' });
    const { fault } = await fetchRobots(site!.origin, asking(site!.origin));
    expect(fault).toEqual({ code: 'status', status: 503, tries: 1 });
  });
  it('closes everything when no answer comes, and says what kind of failure it was', async () => {
    const rules = await fetchRobots('http://127.0.0.1:9', asking('http://127.0.0.1:9'));
    expect(rules.closedBy('http://127.0.0.1:9/')).toMatchObject({ directive: 'unreadable' });
    expect(rules.fault).toEqual({ code: 'error', error: 'refused', tries: 1 });
    expect(rules.error).toBe('refused');
  });
  it('is followed over five redirects, and not over six', async () => {
    const hops = (n: number): Record<string, StandInPage> => ({
      '/robots.txt': { status: 301, headers: { location: '/1' } },
      ...Object.fromEntries(
        Array.from({ length: n - 1 }, (_, i) => [`/${i + 1}`, { status: 302, headers: { location: `/${i + 2}` } }]),
      ),
      [`/${n}`]: shut,
    });
    expect(await closes(hops(5))).toEqual(rule);
    expect(await closes(hops(6))).toBeNull();
  });
  it('is asked for once for each origin', async () => {
    site = await standIn({ '/robots.txt': shut });
    const read: string[] = [];
    const rulesFor = robotsCache({ ...asking(site.origin), signal, onRead: async ({ origin }) => read.push(origin) });
    await Promise.all(['/a', '/b', '/shop'].map((path) => rulesFor(site!.origin + path)));
    expect(site.asked).toEqual(['/robots.txt']);
    expect(read).toEqual([site.origin]);
  });
});

/** Keeps what waits to be read as a crawl does, in memory. */
function waitingSitemaps(outcomes: FetchedSitemap[]): SitemapQueue {
  const waiting: QueuedSitemap[] = [];
  return {
    add: async (addresses, from) => {
      for (const address of addresses)
        if (!waiting.some((one) => one.address === address)) waiting.push({ address, ...from });
      return 0;
    },
    next: async (count) =>
      waiting.filter(({ address }) => !outcomes.some((read) => read.address === address)).slice(0, count),
  };
}

describe('sitemaps', () => {
  async function read(pages: (origin: string) => Record<string, StandInPage>, ...paths: string[]) {
    let all: Record<string, StandInPage> = {};
    site = await standIn((path) => all[path]);
    all = pages(site.origin);
    const { origin } = site;
    const found: string[] = [];
    const outcomes: FetchedSitemap[] = [];
    await readSitemaps(
      paths.map((path) => origin + path),
      [origin],
      {
        client: clientFor(origin),
        policy: { limiter: unlimited, retries: 1, signal },
        openParser: parsers.openSitemap,
        identify,
        inside: (address) => address.startsWith(origin),
        onEntries: async (_, entries) => found.push(...entries.map(({ loc }) => loc.slice(origin.length))),
        onRead: async (outcome) => outcomes.push(outcome),
        queue: waitingSitemaps(outcomes),
      },
    );
    return {
      found,
      outcomes: Object.fromEntries(outcomes.map((outcome) => [outcome.address.slice(origin.length), outcome])),
    };
  }
  const urlset = (...locs: string[]) =>
    `<urlset>${locs.map((loc) => `<url><loc>${loc}</loc></url>`).join('\n')}</urlset>`;
  const index = (...locs: string[]) =>
    `<sitemapindex>${locs.map((loc) => `<sitemap><loc>${loc}</loc></sitemap>`).join('\n')}</sitemapindex>`;

  it('are read through indexes, zipped or not, each once', async () => {
    const { found, outcomes } = await read(
      (origin) => ({
        '/index.xml': index(`${origin}/a.xml`, `${origin}/b.xml.gz`, `${origin}/index.xml`),
        '/a.xml': urlset(`${origin}/1`, `${origin}/2`),
        // Zipped, and said to be so as well: the header is about the file, not about its way here.
        '/b.xml.gz': { headers: { 'content-type': 'application/gzip' }, body: gzipSync(urlset(`${origin}/3`)) },
      }),
      '/index.xml',
      '/a.xml',
    );
    expect(found.sort()).toEqual(['/1', '/2', '/3']);
    expect(outcomes['/index.xml'].entries).toBe(3);
    expect(site!.asked.filter((path) => path === '/a.xml')).toHaveLength(1);
  });
  it('count what lies outside or is not an address', async () => {
    const { found, outcomes } = await read(
      (origin) => ({ '/s.xml': urlset(`${origin}/in`, 'https://else.example/', 'not an address') }),
      '/s.xml',
    );
    expect(found).toEqual(['/in']);
    expect(outcomes['/s.xml']).toMatchObject({ entries: 3, skipped: 2, fault: null });
  });
  it('are not to blame when what they list cannot be stored', async () => {
    site = await standIn({ '/s.xml': 'https://museum.example/1\n' });
    const reading = {
      client: clientFor(site.origin),
      policy: { limiter: unlimited, retries: 1, signal },
      openParser: parsers.openSitemap,
      identify,
      inside: () => true,
      onEntries: () => Promise.reject(new Error('The table is full.')),
      onRead: async () => {},
      queue: waitingSitemaps([]),
    };
    await expect(readSitemaps([`${site.origin}/s.xml`], [], reading)).rejects.toThrow('The table is full.');
  });
  it('with bytes behind their gzip are whole, and an index that repeats itself is followed once', async () => {
    const { found, outcomes } = await read(
      (origin) => ({
        '/signed.gz': { body: Buffer.concat([gzipSync(urlset(`${origin}/1`)), Buffer.from('<!-- cached -->')]) },
        '/index.xml': index(...Array.from({ length: 30_000 }, () => `${origin}/missing.xml`)),
      }),
      '/signed.gz',
      '/index.xml',
    );
    expect(found).toEqual(['/1']);
    expect(outcomes['/signed.gz'].fault).toBeNull();
    expect(outcomes['/index.xml']).toMatchObject({ entries: 30_000, skipped: 0 });
  });
  it('say what is wrong with them, and go on with the next', async () => {
    const { found, outcomes } = await read(
      (origin) => ({
        '/torn.xml': `<urlset>\n<url><loc>${origin}/kept</loc></url>\n<url><loc>`,
        '/page.xml': '<html><body>Hello</body></html>',
        '/zip.gz': { body: gzipSync('x'.repeat(1000)).subarray(0, 20) },
        '/moved.xml': { status: 301, headers: { location: '/good.xml' } },
        '/good.xml': `${origin}/text`,
      }),
      '/torn.xml',
      '/page.xml',
      '/gone.xml',
      '/zip.gz',
      '/moved.xml',
    );
    expect(found).toEqual(['/kept', '/text']);
    expect(outcomes['/torn.xml'].faultLine).toBe(3);
    expect(outcomes['/page.xml'].fault).toEqual({ code: 'not_a_sitemap', root: 'html' });
    expect(outcomes['/gone.xml'].fault).toEqual({ code: 'status', status: 404, tries: 1 });
    expect(outcomes['/zip.gz'].fault).toBeTruthy();
    expect(outcomes['/moved.xml'].fault).toBeNull();
  });
  it('are asked for again where the server fails for the moment, or the connection breaks', async () => {
    let [asked, torn] = [0, 0];
    const { found, outcomes } = await read(
      (origin) => ({
        '/busy.xml': (_, response) =>
          void response.writeHead(asked++ ? 200 : 503, { 'retry-after': '0' }).end(urlset(`${origin}/1`)),
        '/torn.xml': (_, response) => {
          response.write(`<urlset><url><loc>${origin}/2</loc></url>`);
          if (torn++) response.end('</urlset>');
          else setTimeout(() => response.destroy(), 20);
        },
        '/down.xml': { status: 500 },
      }),
      '/busy.xml',
      '/torn.xml',
      '/down.xml',
    );
    expect([...new Set(found)]).toEqual(['/1', '/2']);
    expect(outcomes['/torn.xml']).toMatchObject({ entries: 1, fault: null });
    expect(outcomes['/down.xml'].fault).toEqual({ code: 'status', status: 500, tries: 2 });
    expect(site!.asked.filter((path) => path === '/down.xml')).toHaveLength(2);
  });
});
