/** ./edgemap as it is typed. */
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { settingsSchema } from '$core/settings';
import { addCrawl, getCrawl, saveSite } from '$server/index';
import { until } from './support/crawling';
import { testDatabase } from './support/database';
import type { TestDatabase } from './support/database';
import { linking, standIn } from './support/standIn';
import type { StandIn } from './support/standIn';

let database: TestDatabase;
let folder: string;
let site: StandIn | null = null;
beforeAll(async () => {
  database = await testDatabase();
  folder = mkdtempSync(join(tmpdir(), 'edgemap-command-'));
});
afterAll(async () => {
  rmSync(folder, { recursive: true });
  await database.drop();
});
afterEach(() => site?.close());

/** Runs the command without stopping the stand-in site of this process. */
function edgemap(...words: string[]): Promise<{ code: number | null; out: string; said: string }> {
  return new Promise((resolve) => {
    const child = spawn('./edgemap', words, { env: { ...process.env, DATABASE_URL: database.url } });
    let [out, said] = ['', ''];
    child.stdout.on('data', (piece) => (out += piece));
    child.stderr.on('data', (piece) => (said += piece));
    child.on('close', (code) => resolve({ code, out, said }));
  });
}

describe('./edgemap', () => {
  it('ends in peace when whoever reads has seen enough', () => {
    const file = join(folder, 'faulty.txt');
    writeFileSync(file, `https://www.larkfield.example/\n${`/${'x'.repeat(150)}\n`.repeat(1000)}`);
    const { status, stdout, stderr } = spawnSync('bash', [
      ...['-o', 'pipefail', '-c', './edgemap sitemap check "$0" | head -n 1', file],
    ]);
    expect([status, String(stderr)]).toEqual([1, '']);
    expect(String(stdout)).toMatch(/^\S+faulty\.txt:2:1 relative_loc .*\n$/);
  });
  it('says what it can do', async () => {
    const { code, out } = await edgemap('help');
    expect(code).toBe(0);
    for (const command of [
      'demo',
      'start',
      'crawl',
      'export',
      'select',
      'import',
      'sources',
      'sitemap',
      'robots',
      'compare',
      'worker',
      'bench',
      'test',
    ])
      expect(out).toMatch(new RegExp(`^  ${command}\\b`, 'm'));
  });
  it('exits with 2 for what it does not know', async () => {
    const { code, said } = await edgemap('frobnicate');
    expect(said).toMatch(/^edgemap: There is no command “frobnicate”/);
    expect(code).toBe(2);
  });
  it('is plain bash', () => expect(spawnSync('bash', ['-n', 'edgemap']).status).toBe(0));
});

describe('./edgemap crawl', () => {
  it('writes pages.csv, links.csv and summary.json', async () => {
    site = await standIn({ '/': linking('Home, "sweet"', '/a', 'https://else.example/'), '/a': linking('A', '/') });
    const out = join(folder, 'new', 'out');
    const { code, said } = await edgemap('crawl', `${site.origin}/`, '--out', out);
    expect(said).toContain('2 addresses, 2 indexable, 0 without a route');
    expect(code).toBe(0);
    const pages = readFileSync(join(out, 'pages.csv'), 'utf8').split('\r\n');
    expect(pages[1]).toContain(
      `${site.origin}/,200,text/html,"Home, ""sweet""",0,reached,1,1,1,2,indexable,,,false,start|links,,0,1.000000,1,`,
    );
    expect(readFileSync(join(out, 'links.csv'), 'utf8')).toContain(
      `${site.origin}/,https://else.example/,to https://else.example/,,a,,2,4\r\n`,
    );
    expect(JSON.parse(readFileSync(join(out, 'summary.json'), 'utf8'))).toMatchObject({
      pages: 2,
      state: 'done',
      verdict: { indexable: 2 },
      depth: { 0: 1, 1: 1 },
    });
  });
  it.each([
    [['http://127.0.0.1:9/'], 1, /The connection was refused/],
    [['https://nowhere.invalid/'], 1, /no DNS record/],
    [['not a url'], 2, /not a URL/],
    [['a.example', '--limit', 'x'], 2, /--limit.*whole number/],
    [['a.example', '--out', '/dev/null/x'], 2, /--out/],
    [['a.example', '--out', '/proc/x/y'], 2, /--out/],
  ])('%o exits with %i and says why', async (words, expected, message) => {
    const { code, said } = await edgemap('crawl', ...words);
    expect(said).toMatch(message);
    expect(said).not.toMatch(/\n\s+at /);
    expect(code).toBe(expected);
  });
  it('stops at Ctrl-C, keeps what it has, and writes it', async () => {
    site = await standIn((path) => (_, response) => {
      const body = linking(path, ...Array.from({ length: 5 }, (_, i) => `${path === '/' ? '' : path}/${i}`));
      setTimeout(() => response.setHeader('content-type', 'text/html').end(body), 40);
    });
    const out = join(folder, 'stopped');
    const child = spawn('./edgemap', ['crawl', `${site.origin}/`, '--out', out], {
      env: { ...process.env, DATABASE_URL: database.url },
      detached: true,
    });
    let said = '';
    child.stderr.on('data', (piece) => (said += piece));
    const ended = new Promise((resolve) => child.on('close', resolve));
    await until(() => site!.asked.length >= 30);
    // A terminal sends the signal to the whole group.
    process.kill(-child.pid!, 'SIGINT');
    expect(await ended).toBe(0);
    expect(said).toContain('Stopping. What has been fetched is kept.');
    expect(JSON.parse(readFileSync(join(out, 'summary.json'), 'utf8'))).toMatchObject({ state: 'stopped' });
  });
});

describe('a finished crawl', () => {
  it('is exported and selected from', async () => {
    site = await standIn({
      '/': linking('Home', '/a', '/b'),
      '/a': linking('A', '/b', '/gone'),
      '/b': linking('B', '/'),
    });
    const { said } = await edgemap('crawl', `${site.origin}/`);
    const number = /Crawl (\d+):/.exec(said)![1];
    const out = join(folder, 'exported');
    const options = ['--select', 'indexable', '--sort', 'share:desc', '--share-model', 'plain'];
    expect(await edgemap('export', number, '--out', out, '--tables', ...options)).toMatchObject({ code: 0 });
    const heads = ['canonicals', 'variants', 'hreflang', 'page_rules', 'answer_sheet'].map(
      (name) => readFileSync(join(out, `${name}.csv`), 'utf8').split(',', 1)[0],
    );
    expect(heads).toEqual(['url', 'group', 'set', 'url', 'question']);
    expect(readFileSync(join(out, 'canonicals.csv'), 'utf8')).toContain(`${site.origin}/a,indexable,,missing,`);
    const [head, ...rows] = readFileSync(join(out, 'pages.csv'), 'utf8').trim().split('\r\n');
    const share = rows.map((row) => Number(row.split(',')[head.split(',').indexOf('share')]));
    expect(share).toHaveLength(3);
    expect(share).toEqual([...share].sort((a, b) => b - a));
    expect(share.reduce((a, b) => a + b, 0)).toBeCloseTo(3, 4);
    const summary = JSON.parse(readFileSync(join(out, 'summary.json'), 'utf8')) as Record<string, unknown>;
    expect(summary).toMatchObject({ share_model: 'plain', crawler_reach: { reached: 4, not_reached: 0 } });
    expect((summary.findings as { id: string }[]).map(({ id }) => id)).toContain('links_to_broken');
    const selected = await edgemap('select', number, 'links to (broken)');
    expect([selected.code, selected.out]).toEqual([0, `${site.origin}/a\n`]);
  });
  it('is asked for by number, and with a selection that can be read', async () => {
    expect(await edgemap('select', '999999', 'indexable')).toMatchObject({
      code: 2,
      said: expect.stringContaining('There is no crawl 999999.') as string,
    });
    expect(await edgemap('select', '1', 'depth > deep')).toMatchObject({
      code: 2,
      said: expect.stringContaining('depth > deep\n          ^^^^') as string,
    });
  });
});

describe('sources besides the crawl', () => {
  const hit = (path: string) => `203.0.113.9 - - [10/Oct/2026:13:55:36 +0000] "GET ${path} HTTP/1.1" 200 9 "-" "-"`;
  it('are imported, compared, and written as a sitemap that has no fault', async () => {
    site = await standIn({ '/': linking('Home', '/a'), '/a': linking('A', '/'), '/old': linking('Old') });
    const start = `${site.origin}/`;
    const { said } = await edgemap('crawl', start);
    const crawl = /Crawl (\d+):/.exec(said)![1];
    const [log, rejects] = [join(folder, 'access.log'), join(folder, 'rejects.csv')];
    writeFileSync(log, [hit('/a'), hit('/old'), 'nothing', ''].join('\n'));
    const imported = await edgemap('import', start, log, '--as', 'log', '--name', 'May', '--rejects', rejects);
    expect([imported.code, imported.out]).toEqual([0, '3 lines, 2 addresses, 1 matched, 1 new, 1 rejected\n']);
    expect(readFileSync(rejects, 'utf8')).toMatch(/^line,reason\r\n3,The line is in no format/);
    const again = await edgemap('import', start, log, '--as', 'log', '--name', 'May');
    expect(again.out).toBe(imported.out);
    expect(again.said).toMatch(/This file was imported before, as log “May”.*Nothing has changed\./);
    const out = join(folder, 'sources');
    expect((await edgemap('sources', crawl, '--out', out)).code).toBe(0);
    expect(readFileSync(join(out, 'agreement.csv'), 'utf8').trim().split('\r\n')).toEqual([
      'sources,urls,indexable,hits',
      'links,1,1,0',
      'links+log:May,1,1,1',
      'log:May,1,0,1',
    ]);
    expect(readFileSync(join(out, 'sources.csv'), 'utf8')).toContain(`${start}old,,,,0,0,1`);
    expect((await edgemap('sitemap', 'write', crawl, '--out', out)).said).toMatch(/2 addresses written to/);
    const checked = await edgemap('sitemap', 'check', join(out, 'sitemap.xml'), '--json');
    expect([checked.code, JSON.parse(checked.out)]).toEqual([
      0,
      { files: [{ address: join(out, 'sitemap.xml'), kind: 'urlset', entries: 2, faults: [] }] },
    ]);
  });
  it('a written sitemap has dates only where something shows them', async () => {
    let isNew = false;
    site = await standIn((path) => {
      if (path === '/dated') return linking('Home', '/a', '/b');
      return path === '/a' || path === '/b'
        ? linking(isNew && path === '/a' ? 'Changed' : `Page ${path}`, '/dated')
        : undefined;
    });
    // A start of its own: another test may have had a site on the same port, whose crawls would be earlier ones of
    // this.
    const start = `${site.origin}/dated`;
    await edgemap('crawl', start);
    isNew = true;
    const crawl = /Crawl (\d+):/.exec((await edgemap('crawl', start)).said)![1];
    const out = join(folder, 'dated');
    await edgemap('sitemap', 'write', crawl, '--out', out);
    const entries = readFileSync(join(out, 'sitemap.xml'), 'utf8').match(/<url>[^]*?<\/url>/g)!;
    const today = new Date().toISOString().slice(0, 10);
    expect(entries.map((entry) => /<lastmod>(.*)<\/lastmod>/.exec(entry)?.[1] ?? null)).toEqual([today, null, null]);
  });
  it('that cannot be imported are told in words', async () => {
    const file = join(folder, 'names.csv');
    writeFileSync(file, 'Name,Age\nAda,36\n');
    const refused = await edgemap('import', 'https://www.larkfield.example/', file, '--as', 'list');
    expect([refused.code, refused.said]).toEqual([1, expect.stringMatching(/No column of the file holds addresses/)]);
    const missing = await edgemap('import', 'https://www.larkfield.example/', `${file}x`, '--as', 'list');
    expect([missing.code, missing.said]).toEqual([2, expect.stringMatching(/The file cannot be read/)]);
    expect((await edgemap('import', 'https://www.larkfield.example/', file)).code).toBe(2);
  });
  it('a sitemap is checked with all that it names, each fault at its line', async () => {
    const namespace = 'xmlns="http://www.sitemaps.org/schemas/sitemap/0.9"';
    site = await standIn((path) => {
      const { origin } = site!;
      if (path === '/index.xml')
        return `<sitemapindex ${namespace}>\n<sitemap><loc>${origin}/a.xml</loc></sitemap>\n<sitemap><loc>${origin}/gone.xml</loc></sitemap></sitemapindex>`;
      return path === '/a.xml' ? `<urlset ${namespace}>\n<url>\n<loc>/relative</loc></url></urlset>` : undefined;
    });
    const { code, out } = await edgemap('sitemap', 'check', `${site.origin}/index.xml`);
    expect(code).toBe(1);
    expect(out.trim().split('\n')).toEqual([
      expect.stringMatching(new RegExp(`^${site.origin}/a\\.xml:3:1 relative_loc `)) as string,
      expect.stringMatching(new RegExp(`^${site.origin}/gone\\.xml:1:1 unreachable .*404`)) as string,
    ]);
  });
});

describe('two crawls', () => {
  it('are compared: pages, links by edit, and findings', async () => {
    let isNew = false;
    site = await standIn((path) => {
      if (path === '/') return isNew ? linking('Home', '/a', '/c') : linking('Home', '/a', '/b');
      if (path === '/a') return linking(isNew ? 'Trams and buses' : 'Trams', '/');
      if (path === '/b') return linking('B');
      return path === '/c' && isNew ? linking('C', '/gone') : undefined;
    });
    const crawl = async () => /Crawl (\d+):/.exec((await edgemap('crawl', `${site!.origin}/`)).said)![1];
    const old = await crawl();
    isNew = true;
    const fresh = await crawl();
    const out = join(folder, 'compared');
    const { code, said } = await edgemap('compare', old, fresh, '--out', out);
    expect([code, said]).toEqual([0, expect.stringContaining('2 added, 1 removed, 0 gone') as string]);
    const read = (name: string) => readFileSync(join(out, name), 'utf8').trim().split('\r\n');
    const changes = read('changes.csv');
    expect(changes[0]).toBe('url,change,fact,before,after');
    expect(changes).toContain(`${site.origin}/a,changed,title,Trams,Trams and buses`);
    expect(changes).toContain(`${site.origin}/b,removed,verdict,indexable,`);
    expect(changes).toContain(`${site.origin}/c,added,verdict,,indexable`);
    expect(read('link_changes.csv')).toEqual([
      'change,source,target,anchor,placement,edit',
      `removed,${site.origin}/,${site.origin}/b,to /b,,1`,
      `added,${site.origin}/,${site.origin}/c,to /c,,2`,
    ]);
    expect(read('finding_changes.csv')[0]).toBe('finding,new,solved,remaining,gone');
    expect(read('finding_changes.csv')).toContain('links_to_broken,1,0,0,0');
    const summary = JSON.parse(readFileSync(join(out, 'summary.json'), 'utf8')) as { pages: object; links: object };
    expect(summary).toMatchObject({ pages: { added: 2, removed: 1 }, links: { added: 1, removed: 1, edits: 2 } });
    // The crawl before is asked by selections too.
    expect((await edgemap('select', fresh, 'new')).out.trim().split('\n').sort()).toEqual([
      `${site.origin}/c`,
      `${site.origin}/gone`,
    ]);
    expect(await edgemap('select', old, 'new')).toMatchObject({ code: 2 });
    expect((await edgemap('compare', old, old, '--out', out)).said).toContain('0 added, 0 removed, 0 gone');
    expect((await edgemap('compare', old, '99999', '--out', out)).code).toBe(2);
    expect((await edgemap('compare', old, fresh, '--out', out, '--map', 'nonsense')).code).toBe(2);
  });
});

describe('a robots.txt', () => {
  const write = (name: string, ...lines: string[]) => {
    writeFileSync(join(folder, name), lines.join('\n'));
    return join(folder, name);
  };
  it('is tested on addresses', async () => {
    const file = write('test.txt', 'User-agent: SearchBot', 'Disallow: /shop', 'Allow: /shop/tickets');
    const list = write('urls.txt', 'https://www.larkfield.example/visit', '');
    const words = ['robots', 'test', file, '--agent', 'searchbot', '--urls', list, '/shop', '/shop/tickets'];
    const { code, out } = await edgemap(...words);
    expect([code, out.split('\n').slice(0, -1)]).toEqual([
      0,
      [
        '/shop\tblocked\t2\tDisallow: /shop',
        '/shop/tickets\tallowed\t3\tAllow: /shop/tickets',
        'https://www.larkfield.example/visit\tallowed\t0\t',
      ],
    ]);
    expect(JSON.parse((await edgemap(...words, '--json')).out)).toHaveLength(3);
  });
  it('that a host does not give closes it', async () => {
    site = await standIn({ '/robots.txt': { status: 503 } });
    const { code, out, said } = await edgemap('robots', 'test', `${site.origin}/robots.txt`, '--agent', 'a', '/x');
    expect([code, out]).toEqual([0, '/x\tblocked\t0\t\n']);
    expect(said).toContain('answered 503, which closes the host');
  });
  it('is checked line by line', async () => {
    const file = write('check.txt', 'User-agent: *', 'Disallow: /', 'Disalow: /x');
    const { code, out } = await edgemap('robots', 'check', file);
    expect([code, out.trim().split('\n')]).toEqual([
      1,
      [
        `${file}:2 closes_everything The rule closes the whole site to every crawler.`,
        `${file}:3 unknown_line “Disalow: /x” is no line of the standard; crawlers pass it over.`,
      ],
    ]);
    expect((await edgemap('robots', 'check', write('fine.txt', 'User-agent: *', 'Disallow: /x'))).code).toBe(0);
  });
  it('is compared with the one that a crawl has met', async () => {
    site = await standIn({ '/': linking('Home', '/a'), '/a': linking('A', '/b'), '/b': linking('B', '/') });
    const crawl = /Crawl (\d+):/.exec((await edgemap('crawl', `${site.origin}/`)).said)![1];
    const file = write('draft.txt', 'User-agent: *', 'Disallow: /a');
    const { code, out } = await edgemap('robots', 'compare', crawl, file, '--agent', 'searchbot', '--json');
    const { closed, opened, summary } = JSON.parse(out) as { closed: object[]; opened: object[]; summary: object };
    expect([code, opened, closed]).toEqual([
      0,
      [],
      [expect.objectContaining({ url: `${site.origin}/a`, verdict: 'indexable', line: 2 })],
    ]);
    expect(summary).toMatchObject({ closed: 1, opened: 0, indexable_lost: 1, indexable_won: 0, routes_lost: 1 });
    const other = ['--agent', 'searchbot', '--origin', 'https://shop.larkfield.example/'];
    expect(await edgemap('robots', 'compare', crawl, file, ...other)).toMatchObject({
      code: 2,
      said: expect.stringContaining(`Crawl ${crawl} knows no address of https://shop.larkfield.example.`) as string,
    });
  });
});

it('./edgemap worker runs what waits in the database until Ctrl-C', async () => {
  // The answer takes longer than the pieces in which the command waits for its worker.
  site = await standIn((path) => (_, response) => {
    if (path === '/robots.txt') return void response.writeHead(404).end();
    setTimeout(() => response.setHeader('content-type', 'text/html').end(linking('Slow')), 2500);
  });
  const settings = settingsSchema.parse({ start: `${site.origin}/` });
  const id = await addCrawl(database.db, await saveSite(database.db, settings), settings);
  const child = spawn('./edgemap', ['worker'], { env: { ...process.env, DATABASE_URL: database.url } });
  const ended = new Promise((resolve) => child.on('close', resolve));
  const done = async () => (await getCrawl(database.db, id))!.state === 'done';
  await until(async () => child.exitCode !== null || (await done()));
  expect(await done()).toBe(true);
  expect(child.exitCode).toBeNull();
  child.kill('SIGINT');
  expect(await ended).toBe(130);
});

it('./edgemap says that its data folder cannot be written to', async () => {
  const env: NodeJS.ProcessEnv = { ...process.env, EDGEMAP_DATA: '/proc/edgemap' };
  delete env.DATABASE_URL;
  for (const words of [['start'], ['select', '1']]) {
    const child = spawn('./edgemap', words, { env });
    let said = '';
    child.stderr.on('data', (piece) => (said += piece));
    expect(await new Promise((resolve) => child.on('close', resolve))).toBe(1);
    expect(said).toMatch(/^edgemap: The data folder \/proc\/edgemap cannot be written to\. Make it writable[^\n]*\n$/);
  }
});

it('./edgemap start finds a port that is taken before it does anything else', async () => {
  const taken = createServer().listen(0, '127.0.0.1');
  await new Promise((resolve) => taken.once('listening', resolve));
  const port = String((taken.address() as AddressInfo).port);
  const child = spawn('./edgemap', ['start'], { env: { ...process.env, DATABASE_URL: database.url, PORT: port } });
  let said = '';
  child.stderr.on('data', (piece) => (said += piece));
  const code = await new Promise((resolve) => child.on('close', resolve));
  taken.close();
  expect(said).toMatch(new RegExp(`^\\S*edgemap: Port ${port} is taken\\. Choose another[^\n]*\n$`, 'i'));
  expect(code).not.toBe(0);
});

describe('the private database', () => {
  const own = () => {
    const place = mkdtempSync(join(folder, 'own-'));
    mkdirSync(join(place, 'tmp'));
    const env: NodeJS.ProcessEnv = { ...process.env, EDGEMAP_DATA: join(place, 'data'), TMPDIR: join(place, 'tmp') };
    delete env.DATABASE_URL;
    const pidFile = join(place, 'data', 'db.pid');
    return { env, left: () => readdirSync(join(place, 'tmp')).filter((name) => name.startsWith('edgemap')), pidFile };
  };
  const isAlive = (pid: number) => {
    try {
      return process.kill(pid, 0);
    } catch {
      return false;
    }
  };

  it('is stopped when a crawl is interrupted, twice at that, and leaves nothing among the temporary files', async () => {
    site = await standIn((path) => (_, response) => {
      const body = linking(path, ...Array.from({ length: 5 }, (_, i) => `${path === '/' ? '' : path}/${i}`));
      setTimeout(() => response.setHeader('content-type', 'text/html').end(body), 40);
    });
    const { env, left, pidFile } = own();
    const child = spawn('./edgemap', ['crawl', `${site.origin}/`], { env, detached: true, stdio: 'ignore' });
    const ended = new Promise((resolve) => child.on('close', resolve));
    await until(() => site!.asked.length >= 10);
    const pid = Number(readFileSync(pidFile, 'utf8'));
    expect(isAlive(pid)).toBe(true);
    process.kill(-child.pid!, 'SIGINT');
    process.kill(-child.pid!, 'SIGINT');
    await ended;
    await until(() => !isAlive(pid));
    expect(existsSync(pidFile)).toBe(false);
    expect(left()).toEqual([]);
  });
});
