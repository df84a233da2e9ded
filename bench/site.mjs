// A website of any size, made as it is asked for: `node site.mjs PAGES`. Prints its port. Page n links to 120 others,
// 20 of them the same on every page, chosen so that all can be reached and the same ones are chosen every time.
import { createServer } from 'node:http';

const pages = Number(process.argv[2]);
const LINKS = 120;
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
const nav = Array.from(
  { length: SHARED },
  (_, i) => `<li><a href="/page/${chance(i, pages)}">${phrase(i, 2)}</a></li>`,
).join('\n');

function page(n) {
  const links = Array.from({ length: LINKS - SHARED }, (_, i) => {
    // Eight below each page make a tree that reaches all; the others go anywhere.
    const to = i < 8 ? (n * 8 + i + 1) % pages : chance(n * 101 + i, pages);
    return `<p>${phrase(n + i, 6)} <a href="/page/${to}">${phrase(to, 3)}</a></p>`;
  });
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${phrase(n, 4)} ${n}</title>
<link rel="canonical" href="/page/${n}"></head><body><nav><ul>${nav}</ul></nav><main><h1>${phrase(n, 3)}</h1>
${links.join('\n')}</main></body></html>`;
}

const server = createServer(({ url }, response) => {
  const n = url === '/' ? 0 : Number(/^\/page\/(\d+)$/.exec(url)?.[1] ?? NaN);
  if (!(n < pages)) return void response.writeHead(404).end();
  response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(page(n));
});
server.keepAliveTimeout = 60_000;
server.listen(0, '127.0.0.1', () => process.stdout.write(`${server.address().port}\n`));
