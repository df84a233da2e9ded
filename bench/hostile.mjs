// Sites that each send one thing that no site should, in its large form: how long a crawl of each takes, how much
// memory its process needs at most, and whether the other pages of the site are found as they are without it. Run by
// hostile.sh.
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';

const MAX_SECONDS = 60;
const MAX_MIB = 700;
/** How often a crawl is stopped at a random moment, and how soon it has to be. */
const STOPS = 3;
const MAX_STOP_SECONDS = 3;
const PAGES = 30;
/** What is compared of the other pages: nothing that depends on who links to them. */
const COMPARED = ['url', 'status', 'verdict', 'title', 'h1', 'word_count', 'depth', 'truncated', 'error'];

const html = (body, headers = {}) => ({ headers: { 'content-type': 'text/html; charset=utf-8', ...headers }, body });
const many = (n, make) => Array.from({ length: n }, (_, i) => make(i)).join('');
const crumbs = (list) =>
  html(
    `<title>Odd</title><script type="application/ld+json">{"@type":"BreadcrumbList","itemListElement":${list}}</script>`,
  );
const xml = (body, headers = {}) => ({ headers: { 'content-type': 'application/xml', ...headers }, body });
const sitemap = (answer) => ({ '/robots.txt': { body: 'Sitemap: /sitemap.xml\n' }, '/sitemap.xml': answer });

/** A frame of Zstandard with so many blocks of nothing. */
const emptyBlocks = (count) =>
  Buffer.concat([Buffer.from('28b52ffd2000', 'hex'), Buffer.alloc(3 * count), Buffer.from('010000', 'hex')]);
/** What never answers. */
const silent = () => null;

/**
 * By name what a site has besides its pages; `/odd` is linked from the start. `otherwise` answers what is not named,
 * and `settings` are those of its crawl. Made when it is asked for.
 */
const cases = {
  nothing: () => ({}),
  'breadcrumb positions that are objects': () => ({
    '/odd': crumbs('[{"position":{"valueOf":1,"toString":1}},{"position":1}]'),
  }),
  'meta refresh of 200 KB of digits': () => ({
    '/odd': html(`<title>Odd</title><meta http-equiv="refresh" content="${'9'.repeat(200_000)}x">`),
  }),
  'a tag of 320 KB of attributes': () => ({ '/odd': html(`<title>Odd</title><p ${many(45_000, (i) => `a${i} `)}>x`) }),
  'a tag of 8 MB of attributes': () => ({ '/odd': html(`<title>Odd</title><p ${many(1_000_000, (i) => `a${i} `)}>x`) }),
  'robots.txt of 21,800 agents and 18,000 delays': () => ({
    '/robots.txt': { body: many(21_800, (i) => `User-agent: a${i}\n`) + many(18_000, () => 'Crawl-delay: 1\n') },
  }),
  'robots.txt of 30,000 rules': () => ({
    '/robots.txt': { body: `User-agent: *\n${many(30_000, (i) => `Disallow: /x${i}\n`)}` },
  }),
  'robots.txt of 30,000 rules with stars': () => ({
    '/robots.txt': { body: `User-agent: *\n${many(30_000, (i) => `Disallow: /*x${i}*\n`)}` },
  }),
  'a sitemap of 5 million nested elements': () => sitemap(xml(`<urlset>${'<a>'.repeat(5_000_000)}`)),
  'a zipped sitemap of 30 million nested elements': () => sitemap(xml(gzipSync(`<urlset>${'<a>'.repeat(30_000_000)}`))),
  'a sitemap index of 1.5 million children': () =>
    sitemap(xml(`<sitemapindex>${'<sitemap><loc>/no.xml</loc></sitemap>'.repeat(1_500_000)}</sitemapindex>`)),
  'a sitemap of one text of 90 MB': () =>
    sitemap(xml(gzipSync(`<urlset><url><loc>${'x'.repeat(90 << 20)}</loc></url></urlset>`))),
  'a sitemap of one line of 90 MB': () => sitemap({ body: gzipSync(`https://museum.example/${'x'.repeat(90 << 20)}`) }),
  'a sitemap of spaces of 90 MB': () => sitemap({ body: gzipSync(' '.repeat(90 << 20)) }),
  'meta robots of 17 MB': () => ({
    '/odd': html(`<title>Odd</title><meta name=robots content="${'noarchive,'.repeat(1_700_000)}">`),
  }),
  'breadcrumb names of 18 MB': () => ({
    '/odd': crumbs(`[${many(18, (i) => `${i ? ',' : ''}{"position":${i},"name":"${'n'.repeat(1 << 20)}"}`)}]`),
  }),
  'two million links on a page': () => ({
    '/odd': html(`<title>Odd</title>${'<a href=/page/1>x</a>'.repeat(2_000_000)}`),
  }),
  'half a million different links on a page': () => ({
    '/odd': html(`<title>Odd</title>${many(500_000, (i) => `<a href=//o.example/${i}>x${i}</a>`)}`),
  }),
  'a base of 8 KB before 200,000 links': () => ({
    '/odd': html(
      `<title>Odd</title><base href="//o.example/${'b'.repeat(8000)}/">${many(200_000, (i) => `<a href=${i}>x</a>`)}`,
    ),
  }),
  'gzip with bytes behind it': () => ({
    '/odd': html(Buffer.concat([gzipSync('<title>Odd</title><a href=/page/1>x</a>'), Buffer.from('behind')]), {
      'content-encoding': 'gzip',
    }),
  }),
  'a gzip that unfolds to a gigabyte': () => ({
    '/odd': html(gzipSync(Buffer.alloc(1 << 30, '<p>')), { 'content-encoding': 'gzip' }),
  }),
  'cookies of 10 KB on every page': () => ({ cookies: (i) => [0, 1, 2].map((n) => `c${i}x${n}=${'v'.repeat(3300)}`) }),
  'an index of 9,990 indexes of 10,000 sitemaps': () => ({
    ...sitemap(xml(`<sitemapindex>${many(9990, (i) => `<sitemap><loc>/i${i}.xml</loc></sitemap>`)}</sitemapindex>`)),
    otherwise: (url) =>
      xml(
        `<sitemapindex>${/^\/i\d+\.xml$/.test(url) ? many(10_000, (i) => `<sitemap><loc>${url}.${i}.xml</loc></sitemap>`) : ''}</sitemapindex>`,
      ),
    settings: { sitemapMinutes: 1 },
  }),
  'an index of 10,000 sitemaps that never answer': () => ({
    ...sitemap(xml(`<sitemapindex>${many(9990, (i) => `<sitemap><loc>/i${i}.xml</loc></sitemap>`)}</sitemapindex>`)),
    otherwise: silent,
    settings: { sitemapMinutes: 1 },
  }),
  'sitemaps of five million addresses': () => ({
    ...sitemap(xml(`<sitemapindex>${many(100, (i) => `<sitemap><loc>/i${i}.xml</loc></sitemap>`)}</sitemapindex>`)),
    otherwise: (url, origin) =>
      xml(`<urlset>${many(50_000, (i) => `<url><loc>${origin}${url}/${i}</loc></url>`)}</urlset>`),
    settings: { limit: 40, knownLimit: 100_000, sitemapMinutes: 1 },
  }),
  'seven million blocks of Zstandard with nothing in them': () => ({
    '/odd': html(gzipSync(emptyBlocks(7_000_000)), { 'content-encoding': 'zstd, gzip' }),
  }),
  'rules of two stars, and addresses of 8 KB': () => ({
    '/robots.txt': { body: `User-agent: *\n${many(2450, (i) => `Disallow: /*a${i}*b${i}\n`)}` },
    '/odd': html(
      `<title>Odd</title>${many(200, (n) => `<a href="/${many(1600, (i) => `a${(i * 7 + n * 13) % 2450}`)}">x</a>`)}`,
    ),
  }),
  'sixty megabytes of nested elements': () => ({
    '/odd': html(`<title>Odd</title>${'<div><b><svg>'.repeat(4_600_000)}`),
  }),
};

function siteOf(given) {
  const page = (i) =>
    `<title>Page ${i}</title><h1>Page ${i}</h1><main>${many(200, (n) => `word${n} `)}<a href="/page/${(i * 7 + 3) % PAGES}">on</a></main>`;
  let asked = 0;
  const server = createServer(({ url }, response) => {
    const at = /^\/page\/(\d+)$/.exec(url);
    const { port } = server.address();
    const named = given[url];
    const answer =
      named ??
      (url === '/'
        ? html(
            `<title>Home</title><h1>Home</h1><a href="/odd">odd</a>${many(PAGES, (i) => `<a href="/page/${i}">${i}</a>`)}`,
          )
        : at && Number(at[1]) < PAGES
          ? html(page(Number(at[1])))
          : url.endsWith('.xml')
            ? given.otherwise?.(url, `http://127.0.0.1:${port}`)
            : undefined);
    if (answer === null) return;
    const cookies = given.cookies ? { 'set-cookie': given.cookies(asked++) } : {};
    response.writeHead(answer ? 200 : 404, { ...answer?.headers, ...cookies }).end(answer?.body);
  });
  // Node's own limit would refuse what a crawl without limits would send; how much is sent is what counts here.
  return new Promise((resolve) => server.listen(0, '127.0.0.1', () => resolve(server)));
}

/** The most memory that a process has had, in MiB; 0 when it is gone. */
function peakOf(pid) {
  try {
    return Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))[1]) / 1024;
  } catch {
    return 0;
  }
}

function pagesOf(folder) {
  const [head, ...rows] = readFileSync(join(folder, 'pages.csv'), 'utf8').trim().split('\r\n');
  const names = head.split(',');
  const places = COMPARED.map((name) => names.indexOf(name)).filter((place) => place >= 0);
  return rows
    .filter((row) => /^[^,]*(\/page\/\d+|:\d+\/),/.test(row))
    .map((row) =>
      places
        .map((place) => row.split(',')[place])
        .join()
        .replace(/127\.0\.0\.1:\d+/, ''),
    )
    .sort()
    .join('\n');
}

/** @param stopAfter seconds after which it is stopped */
async function crawl(given, stopAfter = null) {
  const server = await siteOf(given);
  const folder = mkdtempSync(join(tmpdir(), 'edgemap-hostile-'));
  try {
    const start = `http://127.0.0.1:${server.address().port}/`;
    const settings = join(folder, 'settings.json');
    writeFileSync(
      settings,
      JSON.stringify({
        edgemapSettings: { start, bodyMegabytes: 64, keepCookies: true, keepCrawlDelay: false, ...given.settings },
      }),
    );
    const began = performance.now();
    const child = spawn(process.execPath, [
      'build-node/main.cjs',
      'crawl',
      start,
      '--settings',
      settings,
      '--out',
      folder,
    ]);
    let [said, peak] = ['', 0];
    child.stderr.on('data', (piece) => (said += piece));
    const watching = setInterval(() => (peak = Math.max(peak, peakOf(child.pid))), 20);
    let asked = began;
    const stopping =
      stopAfter === null
        ? null
        : setTimeout(() => ((asked = performance.now()), child.kill('SIGINT')), stopAfter * 1000);
    const code = await new Promise((resolve) => child.on('close', resolve));
    clearInterval(watching);
    clearTimeout(stopping);
    return {
      seconds: (performance.now() - asked) / 1000,
      peak,
      code,
      pages: code === 0 ? pagesOf(folder) : `${code}: ${said}`,
    };
  } finally {
    server.closeAllConnections();
    server.close();
    rmSync(folder, { recursive: true });
  }
}

const only = process.argv[2];
const plain = await crawl(cases.nothing());
if (plain.code !== 0) {
  console.error(`The site that sends nothing could not be crawled: ${plain.pages}`);
  process.exit(1);
}
let failed = 0;
console.log(`${'a site that sends'.padEnd(56)} seconds      MiB   stopped within   other pages`);
for (const [name, make] of Object.entries(cases)) {
  if (only && !name.includes(only)) continue;
  const { seconds, peak, pages } = await crawl(make());
  const same = pages === plain.pages;
  let slowest = 0;
  // A crawl that is over has nothing to be stopped.
  for (let i = 0; i < STOPS && seconds > 2; i++)
    slowest = Math.max(slowest, (await crawl(make(), 1 + Math.random() * (seconds - 1.5))).seconds);
  const inTime = seconds <= MAX_SECONDS + 60 * (make().settings?.sitemapMinutes ?? 0);
  const good = same && inTime && peak <= MAX_MIB && slowest <= MAX_STOP_SECONDS;
  if (!good) failed++;
  console.log(
    `${name.padEnd(56)} ${seconds.toFixed(1).padStart(7)} ${peak.toFixed(0).padStart(8)} ${(slowest ? `${slowest.toFixed(1)} s` : '').padStart(16)}   ${same ? 'the same' : 'NOT THE SAME'}${good ? '' : '   <'}`,
  );
  if (!same) console.log(pages.slice(0, 600));
}
console.log(
  failed
    ? `${failed} of them take more than ${MAX_SECONDS} s besides the minutes that they are given, more than ${MAX_MIB} MiB or ${MAX_STOP_SECONDS} s to stop, or change other pages.`
    : `All end within ${MAX_SECONDS} s besides the minutes that they are given, and ${MAX_MIB} MiB, stop within ${MAX_STOP_SECONDS} s, and change no other page.`,
);
process.exitCode = failed ? 1 : 0;
