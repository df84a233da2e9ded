/** What screens ask of the database and of snapshots, over crawls of a stand-in site. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { deflateRawSync } from 'node:zlib';
import { eq, ne, sql } from 'drizzle-orm';
import { factAt, pageOf } from '$core/snapshot';
import { crawling } from '../../tests/support/crawling';
import { testDatabase } from '../../tests/support/database';
import type { TestDatabase } from '../../tests/support/database';
import { linking, standIn } from '../../tests/support/standIn';
import type { StandIn } from '../../tests/support/standIn';
import {
  findingsOfPage,
  forgetSelection,
  getCrawl,
  keepSelection,
  keptSelections,
  listOf,
  listSummaries,
  listWindow,
  openReport,
  openSnapshot,
  orderedRows,
  pageDetails,
  pageSource,
  storedReport,
  valuesOf,
} from '.';
import type { ListView } from '.';
import { source } from './schema';
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
const crawlOf = async (i: number) => (await getCrawl(test.db, crawls[i]))!;
const view = (changes: Partial<ListView> = {}): ListView => ({
  list: 'pages',
  select: '',
  sort: '',
  by: 'section',
  ...changes,
});

describe('what is stored of a page', () => {
  it('is the head of its answer, without what cookies hold', async () => {
    const { headers, hasSource } = await pageDetails(test.db, await crawlOf(0), at('/b'));
    expect(headers).toContain('content-type: text/html; charset=iso-8859-1');
    expect(headers).toContain('set-cookie: visit=…; Path=/');
    expect(hasSource).toBe(true);
  });
  it('is how it was in each crawl', async () => {
    const { history } = await pageDetails(test.db, await crawlOf(1), at('/a'));
    expect(history.map(({ crawl, verdict, same }) => [crawl, verdict, same])).toEqual([
      [crawls[1], 'indexable', false],
      [crawls[0], 'indexable', null],
    ]);
    const gone = await pageDetails(test.db, await crawlOf(1), at('/gone'));
    expect(gone.history.map(({ verdict, status }) => [verdict, status])).toEqual([
      ['broken', 404],
      ['broken', 404],
    ]);
    expect(await pageDetails(test.db, await crawlOf(1), at('/never'))).toEqual({
      headers: null,
      hasSource: false,
      history: [],
    });
  });
  it('is its source in its own charset, with a place marked', async () => {
    const source = await pageSource(test.db, await crawlOf(0), at('/b'), [{ line: 2, column: 1 }], 1, 10);
    expect(source!.lines[0].runs[0].text).toBe('<title>Café</title>');
    expect(source!.lines[1].runs).toEqual([{ text: '<a href="/a">Café</a>', marked: true }]);
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
      view({ list: 'links', select: 'anchor = "é"' }),
      ['source', 'line', 'column'],
      0,
      5,
    );
    const { line, column } = links.rows[0].cells as { line: number; column: number };
    const source = await pageSource(test.db, row, at('/a'), [{ line, column }], line, 1);
    expect(source!.lines[0].runs.filter(({ marked }) => marked)).toEqual([
      { text: '<a href="/gone">é</a>', marked: true },
    ]);
  });
});

describe('the report of a crawl', () => {
  it('is stored with it, and names the findings of each page', async () => {
    const row = await crawlOf(0);
    const report = (await storedReport(test.db, row))!;
    expect(report.counts).toMatchObject({ known: 4, indexable: 3, noRoute: 0 });
    expect(await openReport(test.db, row)).toEqual(report);
    const snapshot = (await openSnapshot(test.db, row))!;
    expect(await findingsOfPage(test.db, row, pageOf(snapshot, at('/a')))).toContain('links_to_broken');
    expect(await findingsOfPage(test.db, row, pageOf(snapshot, at('/gone')))).not.toContain('links_to_broken');
  });
  it('is drawn up when an earlier program has left none', async () => {
    // With another end it is not the one that is open.
    await test.db.execute(sql`update crawl set ended_at = ended_at + interval 1 second where id = ${crawls[1]}`);
    const row = await crawlOf(1);
    await test.db.execute(sql`delete from snapshot_chunk where crawl_id = ${row.id}`);
    await test.db.execute(sql`insert into snapshot_chunk values (${row.id}, 'head', 0, '{"version":4}')`);
    expect(await storedReport(test.db, row)).toBeNull();
    expect((await openReport(test.db, row))!.counts.known).toBe(4);
    // What was built is all there, links too.
    const snapshot = (await openSnapshot(test.db, row, 'facts'))!;
    expect(snapshot.links.target.length).toBeGreaterThan(4);
    expect(factAt(snapshot, 'title', pageOf(snapshot, at('/a')))).toBe('A');
  });
});

describe('a view of a list', () => {
  it('is asked for in windows, sorted and grouped', async () => {
    const snapshot = (await openSnapshot(test.db, await crawlOf(0)))!;
    const window = listWindow(snapshot, view({ sort: 'links_in:desc' }), ['url', 'links_in', 'frobnication'], 1, 2);
    expect(window).toMatchObject({ total: 4, from: 1 });
    expect(window.rows).toHaveLength(2);
    expect(Object.keys(window.rows[0].cells)).toEqual(['url', 'links_in']);
    const edits = listWindow(
      snapshot,
      view({ list: 'edits', select: 'kind = click and to (broken)' }),
      ['target', 'pages'],
      0,
      5,
    );
    expect(edits.rows.map(({ cells }) => cells)).toEqual([
      { target: at('/gone'), pages: 1 },
      { target: at('/gone'), pages: 1 },
    ]);
    const groups = listWindow(snapshot, view({ list: 'groups', by: 'verdict' }), ['value', 'pages'], 0, 5);
    expect(groups.rows.map(({ select }) => select)).toEqual(['verdict = "indexable"', 'verdict = "broken"']);
  });
  it('holds everything, and says why, when its selection cannot be read', async () => {
    const snapshot = (await openSnapshot(test.db, await crawlOf(0)))!;
    const { list, fault } = listOf(snapshot, view({ list: 'links', select: 'kindd = click' }));
    expect(fault).toMatchObject({ at: 0, length: 5 });
    expect(list.rows).toHaveLength(snapshot.links.target.length);
    // A column that the list lacks leaves the order as it is.
    expect(orderedRows(snapshot, view({ sort: 'nothing:desc' }))).toEqual(orderedRows(snapshot, view()));
  });
  it('has a summary of the columns that are asked for', async () => {
    const snapshot = (await openSnapshot(test.db, await crawlOf(0)))!;
    const { verdict, ...others } = listSummaries(snapshot, view(), ['verdict', 'frobnication']);
    expect(verdict.map(({ label, rows }) => [label, rows])).toEqual([
      ['indexable', 3],
      ['broken', 1],
    ]);
    expect(others).toEqual({});
  });
  it('offers known values to whoever writes a selection', async () => {
    const snapshot = (await openSnapshot(test.db, await crawlOf(0)))!;
    expect(valuesOf(snapshot, 'title', '')).toEqual(['A', 'Café', 'Home']);
    expect(valuesOf(snapshot, 'title', 'Ca')).toEqual(['Café']);
    expect(valuesOf(snapshot, 'depth', '')).toEqual([]);
    expect(valuesOf(snapshot, 'constructor', '')).toEqual([]);
  });
});

it('keeps selections by name, one each, for one site', async () => {
  const { siteId } = await crawlOf(0);
  await keepSelection(test.db, siteId, { name: 'Deep', over: 'pages', text: 'depth > 3' });
  await keepSelection(test.db, siteId, { name: 'Broken', over: 'links', text: 'to (broken)' });
  await keepSelection(test.db, siteId, { name: 'Deep', over: 'pages', text: 'depth > 4' });
  expect(await keptSelections(test.db, siteId)).toEqual([
    { name: 'Broken', over: 'links', text: 'to (broken)' },
    { name: 'Deep', over: 'pages', text: 'depth > 4' },
  ]);
  expect(await keptSelections(test.db, siteId + 1)).toEqual([]);
  await forgetSelection(test.db, siteId, 'Deep');
  expect(await keptSelections(test.db, siteId)).toHaveLength(1);
});
