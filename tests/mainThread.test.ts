/** What comes from outside and is large is unfolded and parsed in threads: the main one has other work. */
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { strToU8, zipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { testDatabase } from './support/database';
import type { TestDatabase } from './support/database';
import { linking, standIn } from './support/standIn';
import type { StandInPage } from './support/standIn';

let test: TestDatabase;
let folder: string;
beforeAll(async () => {
  test = await testDatabase();
  folder = mkdtempSync(join(tmpdir(), 'edgemap-threads-'));
});
afterAll(async () => {
  rmSync(folder, { recursive: true });
  await test.drop();
});

/** Milliseconds of the processor. */
interface Took {
  main: number;
  all: number;
}

/** Runs a command of the built program. */
async function run(...words: string[]): Promise<Took> {
  const hook = join(process.cwd(), 'tests', 'support', 'cpu.cjs');
  const env = { ...process.env, DATABASE_URL: test.url, EDGEMAP_PRIVATE: 'allow' };
  const child = spawn(process.execPath, ['--require', hook, 'build-node/main.cjs', ...words], { env });
  let said = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (piece) => (said += piece));
  const code = await new Promise((resolve) => child.on('close', resolve));
  expect([code, said]).toEqual([0, expect.stringMatching(/CPU \d+ \d+/)]);
  const [, main, all] = /CPU (\d+) (\d+)/.exec(said)!;
  return { main: Number(main), all: Number(all) };
}

/** Of what a large input takes beyond a small one, the main thread takes the smaller part. */
function expectThreadsAtWork(large: Took, small: Took): void {
  const [main, all] = [large.main - small.main, large.all - small.all];
  expect(all).toBeGreaterThan(100);
  expect(main).toBeLessThan(all / 2);
}

const rows = (n: number, row: (i: number) => string) => Array.from({ length: n }, (_, i) => row(i)).join('');

const entry = (i: number) =>
  `<url><loc>https://else.example/${i}</loc><lastmod>2026-10-02</lastmod><changefreq>daily</changefreq><priority>0.5</priority></url>`;

describe('a crawl', () => {
  async function crawl(pages: Record<string, StandInPage>): Promise<Took> {
    const site = await standIn({ '/': linking('Home', '/odd'), '/robots.txt': '', ...pages });
    try {
      return await run('crawl', `${site.origin}/`);
    } finally {
      await site.close();
    }
  }
  let small: Took;
  beforeAll(async () => void (small = await crawl({})));

  it.each<[string, Record<string, StandInPage>]>([
    ['a document', { '/odd': rows(150_000, (i) => `<p>${i} <a href="/">tram ${i % 100}</a> by the sea`) }],
    [
      'a zipped sitemap',
      {
        '/sitemap.xml': {
          body: gzipSync(`<urlset>${rows(150_000, entry)}</urlset>`),
        },
      },
    ],
  ])('has %s of some megabytes read in threads', async (_, pages) => expectThreadsAtWork(await crawl(pages), small));
});

describe('an import', () => {
  const take = (name: string, kind: string, content: string | Uint8Array) => {
    writeFileSync(join(folder, name), content);
    return run('import', 'https://www.larkfield.example/', join(folder, name), '--as', kind);
  };
  const log = rows(
    400_000,
    (i) => `203.0.113.9 - - [10/Oct/2026:13:55:36 +0000] "GET /tram/${i % 1000} HTTP/1.1" 200 1 "-" "-"\n`,
  );
  const sheet = zipSync({
    'xl/workbook.xml': strToU8('<workbook><sheets><sheet name="a" sheetId="1" r:id="rId1"/></sheets></workbook>'),
    'xl/_rels/workbook.xml.rels': strToU8(
      '<Relationships><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet" Target="worksheets/sheet1.xml"/></Relationships>',
    ),
    'xl/worksheets/sheet1.xml': strToU8(
      `<worksheet><sheetData>${rows(30_000, (i) => `<row r="${i + 1}"><c r="A${i + 1}" t="str"><v>/tram/${i % 1000}</v></c></row>`)}</sheetData></worksheet>`,
    ),
  });
  let small: Took;
  beforeAll(async () => {
    // The first run of all reads the program from disk, which the others need not.
    for (let run = 0; run < 2; run++) small = await take('small.csv', 'list', 'url\n/tram\n');
  });

  it.each<[string, string, string | Uint8Array]>([
    ['large.csv', 'list', `url;visits\n${rows(200_000, (i) => `/tram/${i % 1000};${i}\n`)}`],
    ['large.log', 'log', log],
    ['large.log.gz', 'log', gzipSync(log)],
    ['large.xlsx', 'list', sheet],
  ])('has %s read in a thread', async (name, kind, content) =>
    expectThreadsAtWork(await take(name, kind, content), small),
  );
});
