import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { afterAll, describe, expect, it } from 'vitest';
import { checkSitemaps } from './sitemapCheck';
import type { CheckedSitemap } from './sitemapCheck';
import { standIn } from '../../tests/support/standIn';

const folder = mkdtempSync(join(tmpdir(), 'edgemap-sitemaps-'));
afterAll(() => rmSync(folder, { recursive: true }));

const namespace = 'xmlns="http://www.sitemaps.org/schemas/sitemap/0.9"';
const urlset = (...locs: string[]) =>
  `<urlset ${namespace}>\n${locs.map((loc) => `<url><loc>${loc}</loc></url>`).join('\n')}\n</urlset>`;
const home = 'https://www.larkfield.example/';

async function check(name: string, content: string | Buffer): Promise<CheckedSitemap[]> {
  writeFileSync(join(folder, name), content);
  const found: CheckedSitemap[] = [];
  for await (const one of checkSitemaps(join(folder, name))) found.push(one);
  return found;
}
const faults = async (name: string, content: string | Buffer) =>
  (await check(name, content)).flatMap((one) => one.faults.map(({ line, id }) => [line, id]));

describe('a sitemap in a file', () => {
  it('may be compressed', async () => expect(await faults('a.xml.gz', gzipSync(urlset(home)))).toEqual([]));
  it.each([
    ['little-endian', (text: string) => Buffer.from(`\ufeff${text}`, 'utf16le')],
    ['big-endian', (text: string) => Buffer.from(`\ufeff${text}`, 'utf16le').swap16()],
    ['without a byte order mark', (text: string) => Buffer.from(text, 'utf16le')],
  ])('in UTF-16, %s, is told to be, and read all the same', async (_, encode) =>
    expect(await faults('wide.xml', encode(urlset(home, '/relative')))).toEqual([
      [1, 'not_utf8'],
      [3, 'relative_loc'],
    ]),
  );
  it('with bytes that are no UTF-8 is told at their line', async () => {
    const bytes = Buffer.from(urlset(home, `${home}caf\u00e9`, '/relative'), 'latin1');
    const [line, id] = (await faults('latin.xml', bytes))[0];
    expect([line, id]).toEqual([3, 'not_utf8']);
  });
  it('keeps characters that are cut between pieces', async () => {
    const long = Array.from({ length: 3000 }, (_, i) => `${home}p/${i}`);
    const text = urlset(...long).replace('<urlset', `<!-- ${'é'.repeat(70_000)} --><urlset`);
    expect(await faults('long.xml', text)).toEqual([]);
  });
  it('that is an index is followed to the files beside it, whose hosts are then known', async () => {
    writeFileSync(join(folder, 'part.xml'), urlset(home, 'https://elsewhere.example/'));
    const index = `<sitemapindex ${namespace}>\n<sitemap><loc>${home}part.xml</loc></sitemap></sitemapindex>`;
    const [first, second] = await check('index.xml', index);
    expect(first).toMatchObject({ kind: 'index', entries: 1, faults: [] });
    expect(second).toMatchObject({
      address: join(folder, 'part.xml'),
      entries: 2,
      faults: [{ line: 3, id: 'other_host' }],
    });
  });
  it('that is an index which names itself is read once', async () => {
    const index = `<sitemapindex ${namespace}><sitemap><loc>${home}self.xml</loc></sitemap></sitemapindex>`;
    const found = await check('self.xml', index);
    expect(found.length).toBeLessThanOrEqual(2);
  });
  it('that is not there is told', async () => {
    const found: CheckedSitemap[] = [];
    for await (const one of checkSitemaps(join(folder, 'none.xml'))) found.push(one);
    expect(found).toMatchObject([{ faults: [{ line: 1, id: 'unreachable' }] }]);
  });
});

it('a sitemap that comes a byte at a time is given up after a while', async () => {
  const site = await standIn({
    '/sitemap.xml': (_, response) => {
      const dripping = setInterval(() => response.write(' '), 5);
      response.on('close', () => clearInterval(dripping));
    },
  });
  const found: CheckedSitemap[] = [];
  for await (const one of checkSitemaps(`${site.origin}/sitemap.xml`, { wholeMs: 100 })) found.push(one);
  await site.close();
  expect(found).toMatchObject([{ faults: [{ id: 'unreachable', message: { code: 'error', error: 'timeout' } }] }]);
});
