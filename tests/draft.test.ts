/** Drafts from the command line: what they predict is what a crawl finds once a site has been edited. */
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { spawn } from 'node:child_process';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parse } from 'csv-parse/sync';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { testDatabase } from './support/database';
import type { TestDatabase } from './support/database';
import { linking, standIn } from './support/standIn';
import type { StandIn, StandInPage } from './support/standIn';

let database: TestDatabase;
let folder: string;
let site: StandIn;

const museum: Record<string, StandInPage> = {
  '/': linking('Museum', '/trams', '/visit', '/old'),
  '/trams': linking('Trams', '/trams/1908', '/'),
  '/trams/1908': linking('Open top', '/trams/1911'),
  '/trams/1911': linking('Closed top', '/trams/1930'),
  '/trams/1930': linking('Streamliner', '/'),
  '/visit': linking('Visit', '/visit/prices', '/visit/cafe'),
  '/visit/prices': linking('Prices', '/visit'),
  '/visit/cafe': linking('Café', '/visit'),
  '/old': linking('Old', '/old/leaf'),
  '/old/leaf': linking('Leaf'),
};
const pages = { ...museum };

beforeAll(async () => {
  database = await testDatabase();
  folder = mkdtempSync(join(tmpdir(), 'edgemap-draft-'));
  site = await standIn((path) => pages[path]);
});
afterAll(async () => {
  await site.close();
  rmSync(folder, { recursive: true });
  await database.drop();
});

function edgemap(...words: string[]): Promise<{ code: number | null; said: string }> {
  return new Promise((resolve) => {
    const child = spawn('./edgemap', words, { env: { ...process.env, DATABASE_URL: database.url } });
    let said = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (piece) => (said += piece));
    child.on('close', (code) => resolve({ code, said }));
  });
}
const recordsOf = (...file: string[]) =>
  parse(readFileSync(join(folder, ...file), 'utf8'), { columns: true }) as Record<string, string>[];

async function crawled(name: string): Promise<{ id: string; pages: Record<string, string>[] }> {
  const out = join(folder, name);
  const { code, said } = await edgemap('crawl', `${site.origin}/`, '--share-model', 'plain', '--out', out);
  expect([code, said]).toEqual([0, expect.stringContaining('Written to')]);
  const { crawl } = JSON.parse(readFileSync(join(out, 'summary.json'), 'utf8')) as { crawl: number };
  return { id: String(crawl), pages: recordsOf(name, 'pages.csv') };
}

/** Writes a file of edits, whose addresses are paths. */
function writeEdits(name: string, ...rows: string[]): string {
  const file = join(folder, name);
  const absolute = rows.map((row) => row.replaceAll(/(?<=,)\//g, `${site.origin}/`));
  writeFileSync(file, `${['op,source,target,anchor,placement,value', ...absolute].join('\r\n')}\r\n`);
  return file;
}

describe('a draft', () => {
  let before: Awaited<ReturnType<typeof crawled>>;
  beforeAll(async () => void (before = await crawled('before')));

  it('predicts what a crawl of the edited site finds', async () => {
    const edits = writeEdits(
      'edits.csv',
      'add_link,/,/trams/1930,Streamliner,main,',
      'remove_link,/trams,/trams/1908,,,',
      'add_link,/visit,/trams/1908,"Open, top",,',
      'redirect,/old,/visit/prices,,,',
      'remove_page,/visit/cafe,,,,410',
      'noindex,/visit,,,,',
      'add_page,/hub,,,,All trams',
      'add_link,/hub,/trams/1911,,,',
      'add_link,/trams/1930,/hub,All trams,,',
      'canonical,/trams/1911,/trams,,,',
    );
    const drafted = await edgemap(
      'draft',
      before.id,
      edits,
      '--out',
      join(folder, 'drafted'),
      '--share-model',
      'plain',
    );
    expect(drafted).toEqual({ code: 0, said: expect.stringContaining('10 edits applied') });

    pages['/'] = linking('Museum', '/trams', '/visit', '/old', '/trams/1930');
    pages['/trams'] = linking('Trams', '/');
    pages['/visit'] =
      `<meta name="robots" content="noindex">${linking('Visit', '/visit/prices', '/visit/cafe', '/trams/1908')}`;
    pages['/old'] = { status: 301, headers: { location: '/visit/prices' } };
    pages['/visit/cafe'] = { status: 410 };
    pages['/hub'] = linking('All trams', '/trams/1911');
    pages['/trams/1930'] = linking('Streamliner', '/', '/hub');
    pages['/trams/1911'] = `<link rel="canonical" href="/trams">${linking('Closed top', '/trams/1930')}`;
    const after = await crawled('after');

    const found = new Map(after.pages.map((page) => [page.url, page]));
    const records = recordsOf('drafted', 'draft.csv');
    // Nothing links to it any more, so that a new crawl does not come to know it.
    const leaf = records.find(({ url }) => url === `${site.origin}/old/leaf`)!;
    expect([leaf.reach_after, leaf.depth_after, leaf.verdict_after]).toEqual(['orphan', '', 'indexable']);
    expect(found.has(leaf.url)).toBe(false);
    const known = records.filter((record) => record !== leaf);
    expect(known.map(({ url }) => url)).toEqual([...found.keys()]);
    for (const record of known) {
      const page = found.get(record.url)!;
      for (const fact of ['verdict', 'depth', 'reach', 'pages_linking'])
        expect([record.url, fact, record[`${fact}_after`]]).toEqual([record.url, fact, page[fact]]);
    }
    for (const record of records) {
      const was = before.pages.find(({ url }) => url === record.url);
      for (const fact of ['verdict', 'depth', 'reach', 'share', 'pages_linking'])
        expect(record[`${fact}_before`]).toBe(was?.[fact] ?? '');
    }
    const summary = JSON.parse(readFileSync(join(folder, 'drafted', 'summary.json'), 'utf8')) as {
      edits: number;
      before: { pages: number };
      after: { pages: number };
    };
    expect([summary.edits, summary.before.pages, summary.after.pages]).toEqual([10, 10, 11]);
  });

  it.each([
    ['noindex,/nowhere,,,,', 'line 2: The crawl does not know'],
    ['add_link,/,/trams,,,\r\nredirect,/old,/old,,,', 'line 3: .* would redirect to itself'],
    ['swap,/,,,,', 'line 2: “swap” is not an operation'],
    ['remove_page,/old,,,,404\r\n"add_link",/old,/,,,', 'line 3: .* does not answer with an HTML page'],
  ])('says the line of what cannot be applied, and writes nothing: %s', async (rows, said) => {
    const out = join(folder, 'refused');
    const refused = await edgemap('draft', before.id, writeEdits('refused.csv', rows), '--out', out);
    expect(refused).toEqual({ code: 2, said: expect.stringMatching(new RegExp(`refused\\.csv, ${said}`)) });
    expect(existsSync(out)).toBe(false);
  });

  it('can be planned: new links bring pages near enough', async () => {
    const file = join(folder, 'plan.csv');
    const planned = await edgemap('plan', before.id, '--within', '2', '--max-new-links', '2', '--out', file);
    expect(planned.code).toBe(0);
    expect(planned.said).toMatch(/2 pages are too deep\. 1 new link written/);
    expect(await edgemap('draft', before.id, file, '--out', join(folder, 'planned'))).toMatchObject({ code: 0 });
    for (const { url, depth_after } of recordsOf('planned', 'draft.csv'))
      expect([url, Number(depth_after) <= 2]).toEqual([url, true]);
  });
});
