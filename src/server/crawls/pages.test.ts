/** What is stored of the pages of two crawls of a stand-in site. */
import type { SourceLine } from '$core/html';
import { deflateRawSync } from 'node:zlib';
import { eq, ne } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { crawling } from '../../../tests/support/crawling';
import { testDatabase } from '../../../tests/support/database';
import type { TestDatabase } from '../../../tests/support/database';
import { linking, standIn } from '../../../tests/support/standIn';
import type { StandIn } from '../../../tests/support/standIn';
import { crawlState, listWindow, openSnapshot, pageDetails, pageLines, pageSource } from '..';
import { source } from '../database/schema';
import { readSource } from './sources';

let test: TestDatabase;
let site: StandIn;
let words = 'Old trams';
let crawls: number[];

beforeAll(async () => {
  test = await testDatabase();
  site = await standIn((path) => {
    if (path === '/') return linking('Home', '/a', '/b', '/gone');
    if (path === '/a')
      return `<title>A</title>\n<main><p>${words}</p>\n<a href="/gone">é</a> <a href="/">home</a></main>`;
    if (path === '/b')
      return (_, response) =>
        void response
          .writeHead(200, { 'content-type': 'text/html; charset=iso-8859-1', 'set-cookie': 'visit=secret; Path=/' })
          .end(Buffer.from('<title>Caf\xe9</title>\n<a href="/a">Caf\xe9</a>', 'latin1'));
    return undefined;
  });
  const { begin, finish } = crawling(() => test.db);
  const one = async () => {
    const id = await begin(`${site.origin}/`);
    await finish(id);
    return id;
  };
  crawls = [await one()];
  words = 'New trams';
  crawls.push(await one());
});
afterAll(async () => {
  await site.close();
  await test.drop();
});

const at = (path: string) => site.origin + path;
const crawlOf = async (i: number) => (await crawlState(test.db, crawls[i]))!;
const textOf = ({ runs }: SourceLine) => runs.map(({ text }) => text).join('');

describe('what is stored of a page', () => {
  it('is the head of its answer, without what cookies hold', async () => {
    const { headers, hasSource } = await pageDetails(test.db, await crawlOf(0), at('/b'));
    expect(headers).toContain('content-type: text/html; charset=iso-8859-1');
    expect(headers).toContain('set-cookie: visit=…; Path=/');
    expect(hasSource).toBe(true);
  });
  it('is nothing where no crawl knows the address', async () =>
    expect(await pageDetails(test.db, await crawlOf(1), at('/never'))).toEqual({ headers: null, hasSource: false }));
  it('is its text, a line a block, and its source by lines', async () => {
    expect(await pageLines(test.db, await crawlOf(0), at('/b'), 'text')).toEqual(['Café', 'Café']);
    expect((await pageLines(test.db, await crawlOf(0), at('/b'), 'source'))!.slice(0, 2)).toEqual([
      '<title>Café</title>',
      '<a href="/a">Café</a>',
    ]);
    expect(await pageLines(test.db, await crawlOf(0), at('/gone'), 'text')).toBeNull();
  });
  it('is its source in its own charset, with a place marked', async () => {
    const source = await pageSource(test.db, await crawlOf(0), at('/b'), [{ line: 2, column: 1 }], 1, 10);
    expect(textOf(source!.lines[0])).toBe('<title>Café</title>');
    expect(textOf(source!.lines[1])).toBe('<a href="/a">Café</a>');
    expect(source!.lines.slice(0, 2).map(({ runs }) => runs.every(({ marked }) => marked))).toEqual([false, true]);
    expect(await pageSource(test.db, await crawlOf(0), at('/gone'), [], 1, 10)).toBeNull();
    expect(await pageSource(test.db, await crawlOf(0), at('/never'), [], 1, 10)).toBeNull();
  });
  it('can be read as it was compressed before', async () => {
    const html = Buffer.from('<title>Earlier</title>');
    await test.db.insert(source).values({ hash: Buffer.alloc(16, 7), size: html.length, data: deflateRawSync(html) });
    const [stored] = await test.db
      .select()
      .from(source)
      .where(eq(source.hash, Buffer.alloc(16, 7)));
    expect(await readSource(stored.coding, stored.data)).toEqual(html);
    const [now] = await test.db
      .select()
      .from(source)
      .where(ne(source.hash, Buffer.alloc(16, 7)));
    expect((await readSource(now.coding, now.data)).length).toBe(now.size);
  });
  it('is the line at which a link of the list stands', async () => {
    const row = await crawlOf(0);
    const snapshot = (await openSnapshot(test.db, row))!;
    const links = listWindow(
      snapshot,
      { list: 'links', select: 'anchor = "é"', sort: '', by: 'section' },
      ['source', 'line', 'column'],
      0,
      5,
    );
    const { line, column } = links.rows[0].cells as { line: number; column: number };
    const source = await pageSource(test.db, row, at('/a'), [{ line, column }], line, 1);
    const marked = source!.lines[0].runs.filter((run) => run.marked);
    expect(textOf({ number: line, runs: marked })).toBe('<a href="/gone">é</a>');
  });
});
