// A website of any size, made as it is asked for: `node site.mjs PAGES`. Prints its port. Page n links to 120 others,
// 20 of them the same on every page, chosen so that all can be reached and the same ones are chosen every time.
// SIGUSR2 puts it into its second state: a link of the navigation is gone, and of every fifty pages one is gone, has
// moved, is called otherwise or says noindex.
import { createServer } from 'node:http';

const pages = Number(process.argv[2]);
const LINKS = 120;
const IN_SITEMAP = 50_000;
let isLater = false;
process.on('SIGUSR2', () => (isLater = true));
const SHARED = 20;
const words =
  'tram bus depot line wheel bell wire route stop driver museum harbour hill bridge night summer open-top horse'.split(
    ' ',
  );

/** A number below `below` that looks like chance and is not. */
function chance(seed, below) {
  let value = Math.imul(seed ^ 0x9e3779b9, 0x85ebca6b);
  value = Math.imul(value ^ (value >>> 13), 0xc2b2ae35);
  return ((value ^ (value >>> 16)) >>> 0) % below;
}
const phrase = (seed, length) => Array.from({ length }, (_, i) => words[chance(seed * 31 + i, words.length)]).join(' ');
const navs = [SHARED, SHARED - 1].map((length) =>
  Array.from({ length }, (_, i) => `<li><a href="/page/${chance(i, pages)}">${phrase(i, 2)}</a></li>`).join('\n'),
);
/** What becomes of a page in the second state, by its number within fifty. */
const [GONE, MOVED, RENAMED, NOINDEX] = [7, 17, 27, 37];

function page(n) {
  const is = (what) => isLater && n % 50 === what;
  const links = Array.from({ length: LINKS - SHARED }, (_, i) => {
    // Eight below each page make a tree that reaches all; the others go anywhere.
    const to = i < 8 ? (n * 8 + i + 1) % pages : chance(n * 101 + i, pages);
    return `<p>${phrase(n + i, 6)} <a href="/page/${to}">${phrase(to, 3)}</a></p>`;
  });
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${phrase(is(RENAMED) ? n + 1 : n, 4)} ${n}</title>
${is(NOINDEX) ? '<meta name="robots" content="noindex">' : ''}<link rel="canonical" href="/page/${n}"></head><body><nav><ul>${navs[Number(isLater)]}</ul></nav><main><h1>${phrase(n, 3)}</h1>
${links.join('\n')}</main></body></html>`;
}

const own = (path) => `http://127.0.0.1:${server.address().port}${path}`;
const parts = Math.ceil(pages / IN_SITEMAP);
const XMLNS = 'xmlns="http://www.sitemaps.org/schemas/sitemap/0.9"';
function sitemap(part) {
  const first = part * IN_SITEMAP;
  const numbers = Array.from({ length: Math.min(IN_SITEMAP, pages - first) }, (_, i) => first + i);
  return `<urlset ${XMLNS}>${numbers.map((n) => `<url><loc>${own(`/page/${n}`)}</loc></url>`).join('\n')}</urlset>`;
}
function file(url) {
  if (url === '/robots.txt') return `User-agent: *\nDisallow: /closed\nSitemap: ${own('/sitemap.xml')}\n`;
  if (url === '/sitemap.xml')
    return `<sitemapindex ${XMLNS}>${Array.from({ length: parts }, (_, i) => `<sitemap><loc>${own(`/sitemap-${i}.xml`)}</loc></sitemap>`).join('')}</sitemapindex>`;
  const part = Number(/^\/sitemap-(\d+)\.xml$/.exec(url)?.[1] ?? NaN);
  return part < parts ? sitemap(part) : null;
}

const server = createServer(({ url }, response) => {
  const text = file(url);
  if (text !== null)
    return void response
      .writeHead(200, { 'content-type': url.endsWith('.txt') ? 'text/plain' : 'application/xml' })
      .end(text);
  const n = url === '/' ? 0 : Number(/^\/(?:page|moved)\/(\d+)$/.exec(url)?.[1] ?? NaN);
  if (!(n < pages) || (isLater && n % 50 === GONE)) return void response.writeHead(404).end();
  if (isLater && n % 50 === MOVED && url.startsWith('/page/'))
    return void response.writeHead(301, { location: `/moved/${n}` }).end();
  response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(page(n));
});
server.keepAliveTimeout = 60_000;
server.listen(0, '127.0.0.1', () => process.stdout.write(`${server.address().port}\n`));
