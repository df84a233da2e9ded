/** The threads that parse documents, as they are built, beside parsing in place. */
import { setMaxListeners } from 'node:events';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { settingsSchema } from '$core/settings';
import { startParsers } from '../src/crawl/parserPool';
import type { ParseOutcome, ParserOptions, ParserPool } from '../src/crawl/parserPool';
import type { Document } from '../src/crawl/parse';

const start = 'https://museum.example/';
const setup = { settings: settingsSchema.parse({ start }), selectionOnly: false };
const signal = new AbortController().signal;
setMaxListeners(0, signal);
const built = join(process.cwd(), 'build-node', 'parserThread.cjs');
const threads = (given: Partial<ParserOptions> = {}) =>
  startParsers(setup, signal, { threads: 1, file: built, ...given });

const documentOf = (path: string, html: string | Uint8Array, given: Partial<Document> = {}): Document => ({
  queued: { urlId: 1, address: new URL(path, start).href, rank: 1, hops: 0 },
  body: Buffer.from(html),
  charset: undefined,
  directives: [],
  links: [],
  truncated: false,
  ...given,
});
const trams = (count: number) =>
  Array.from({ length: count }, (_, i) => `<a href="/tram/${i}#top" rel=nofollow>Tram ${i}</a>`).join('\n');
const documents = () => [
  documentOf('/', `<title>Trams</title><main><h1>All</h1>${trams(200)}</main>`),
  documentOf('/empty', ''),
  documentOf('/latin', Buffer.from('<title>Caf\xe9</title><p id=\xe9>x', 'latin1'), { charset: 'iso-8859-1' }),
  documentOf('/torn', '<a href="/depot'),
  documentOf('/zero', '<p>\0\0<a href="/\0">nothing</a><a href="http://[bad">bad</a>'),
  documentOf('/headed', '<p>x', {
    directives: [{ agent: '', content: 'noindex', line: 0 }],
    links: [
      {
        kind: 'canonical',
        element: 'http',
        target: start,
        anchor: '',
        rel: '',
        placement: 'none',
        above: '',
        fragment: '',
        line: 0,
        column: 0,
      },
    ],
  }),
];
const parsedOf = <T>(outcome: ParseOutcome<T>): T => {
  if (!outcome.ok) throw new Error(outcome.reason);
  return outcome.parsed;
};
const parseAll = async ({ parse }: ParserPool, all: Document[]) => (await Promise.all(all.map(parse))).map(parsedOf);

describe('threads that parse documents', () => {
  it('find what is found in place, and answer in the order of asking', async () => {
    const pools = [threads(), threads({ threads: 0 })];
    const [there, here] = await Promise.all(pools.map((pool) => parseAll(pool, documents())));
    await Promise.all(pools.map(({ close }) => close()));
    expect(there.map(({ title }) => title)).toEqual(['Trams', null, 'Café', null, null, null]);
    expect(there.at(-1)).toMatchObject({ noindex: true, canonical: start });
    expect(there[0].discoveries).toHaveLength(200);
    expect(there).toEqual(structuredClone(here));
  });
  it('leave memory alone that others use', async () => {
    const pool = threads();
    const shared = Buffer.from('<title>One</title><title>Two</title>');
    const views = [shared.subarray(0, 18), shared.subarray(18)];
    const parsed = await parseAll(
      pool,
      views.map((body) => documentOf('/', body, { body })),
    );
    await pool.close();
    expect(parsed.map(({ title }) => title)).toEqual(['One', 'Two']);
    expect(shared.toString()).toContain('Two');
  });
  it('begin with what came first, though more comes while they are at it', async () => {
    const pool = threads();
    const order: string[] = [];
    const parse = async (path: string) => {
      parsedOf(await pool.parse(documentOf(path, trams(50))));
      order.push(path);
    };
    const paths = ['/1', '/2', '/3', '/4'];
    // Each that is done brings another, as in a crawl.
    await Promise.all(paths.map((path) => parse(path).then(() => parse(`${path}/more`))));
    await pool.close();
    expect(order).toEqual([...paths, ...paths.map((path) => `${path}/more`)]);
  });
  it('share the work when there is much of it', async () => {
    const pool = threads({ threads: 2 });
    const many = Array.from({ length: 400 }, (_, i) => String(i));
    const parsed = await parseAll(
      pool,
      many.map((i) => documentOf(`/${i}`, `<title>${i}</title><a href="/same">`)),
    );
    await pool.close();
    expect(parsed.map(({ title }) => title)).toEqual(many);
  });
  it('are done without where they have not been built', async () => {
    const pool = threads({ file: join(process.cwd(), 'nowhere.cjs') });
    expect(parsedOf(await pool.parse(documentOf('/', '<title>Here')))).toMatchObject({ title: 'Here' });
    await pool.close();
  });
});

describe('a document that cannot be parsed', () => {
  let folder: string;
  let file: string;
  beforeAll(() => {
    folder = mkdtempSync(join(tmpdir(), 'edgemap-threads-'));
    file = join(folder, 'faulty.cjs');
    // The parser of Edge Map, but for documents that make it do what no document should.
    writeFileSync(
      file,
      `const { parse, robots, sitemap } = require(${JSON.stringify(built)});
       exports.parse = (document) => {
         const text = Buffer.from(document.body).toString();
         if (text === 'throw') throw new Error('A fault.');
         if (text === 'hang') for (;;);
         if (text === 'fill') for (const all = []; ;) all.push(new Array(100_000).fill(all.length));
         return parse(document);
       };
       exports.robots = (task) => {
         if (task.text === 'hang') for (;;);
         return robots(task);
       };
       exports.sitemap = (task) => {
         const { postMessage } = task.port;
         task.port.postMessage = (batch) => {
           if (batch.urls.some(({ loc }) => loc.endsWith('hang'))) for (;;);
           if (batch.urls.some(({ loc }) => loc.endsWith('fill'))) for (const all = []; ;) all.push(new Array(100_000).fill(all.length));
           postMessage.call(task.port, batch);
         };
         return sitemap(task);
       };`,
    );
  });
  afterAll(() => rmSync(folder, { recursive: true }));

  it.each([
    ['throw', 'fault', 60_000],
    ['hang', 'time', 2000],
    ['fill', 'memory', 60_000],
  ])(
    'because of which the parser would %s is unreadable, and the documents around it are parsed',
    async (html, reason, timeout) => {
      const pool = threads({ file, timeout, memory: 64 });
      const outcomes = await Promise.all([
        pool.parse(documentOf('/before', '<title>Before')),
        pool.parse(documentOf('/', html)),
        pool.parse(documentOf('/after', '<title>After')),
      ]);
      const later = await pool.parse(documentOf('/later', '<title>Later'));
      await pool.close();
      expect(outcomes[1]).toEqual({ ok: false, reason });
      expect([outcomes[0], outcomes[2], later].map((outcome) => parsedOf(outcome).title)).toEqual([
        'Before',
        'After',
        'Later',
      ]);
    },
  );
  it('is a robots.txt, too', async () => {
    const pool = threads({ file, timeout: 2000 });
    expect(await pool.parseRobots('hang')).toEqual({ ok: false, reason: 'time' });
    expect(parsedOf(await pool.parseRobots('Sitemap: /s.xml')).sitemaps).toHaveLength(1);
    await pool.close();
  });
  it.each([
    ['hang', 'time', 2000],
    ['fill', 'memory', 60_000],
  ])('or a sitemap on which the parser would %s, and the next one is read', async (end, reason, timeout) => {
    const pool = threads({ file, timeout, memory: 64 });
    const url = (name: string) => `<url><loc>https://museum.example/${name}</loc></url>`;
    const faulty = pool.openSitemap();
    expect(parsedOf(await faulty.read(`<urlset>${url('a')}`)).urls).toEqual([]);
    expect(await faulty.read(url(end) + ' '.repeat(100_000))).toEqual({ ok: false, reason });
    faulty.close();
    const next = pool.openSitemap();
    await next.read(`<urlset>${url('b')}`);
    expect(parsedOf(await next.read(null)).urls.map(({ loc }) => loc)).toEqual(['https://museum.example/b']);
    next.close();
    await pool.close();
  });
  it('does not hold up a crawl that is stopped', async () => {
    const stop = new AbortController();
    const pool = startParsers(setup, stop.signal, { threads: 1, file, timeout: 3_600_000 });
    const parsing = [pool.parse(documentOf('/', 'hang')), pool.parse(documentOf('/next', 'hang'))];
    const ended = Promise.all(parsing.map((one) => expect(one).rejects.toThrow()));
    stop.abort();
    await ended;
    await expect(pool.parse(documentOf('/', 'x'))).rejects.toThrow();
    await pool.close();
  });
});

describe('what is built', () => {
  const othersIn = (name: string) =>
    [...readFileSync(join('build-node', `${name}.cjs`), 'utf8').matchAll(/\brequire\(["'`]\.{1,2}\/([^"'`]+)/g)].map(
      ([, file]) => file,
    );
  it.each(['parserThread', 'baseThread', 'analysisThread', 'zstdThread', 'importThread', 'watchdogThread', 'demo'])(
    'stands alone: %s must not load the command line with it',
    (name) => expect(othersIn(name)).toEqual([]),
  );
  it('of the command line loads files of its own only', () => {
    const files = othersIn('main');
    expect(files.length).toBeGreaterThan(0);
    for (const file of files) expect(file).toMatch(/^main-/);
  });
});
