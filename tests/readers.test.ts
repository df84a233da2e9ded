/** The threads that read documents, as they are built, beside reading in place. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { settingsSchema } from '$core/settings';
import { openReaders } from '../src/crawl/readers';
import type { Document } from '../src/crawl/reading';

const start = 'https://museum.example/';
const setup = { settings: settingsSchema.parse({ start }), selectionOnly: false };
const threadFile = join(process.cwd(), 'build-node', 'readerThread.cjs');
const threads = (count = 1, file = threadFile) => openReaders(setup, count, file);

const documentOf = (path: string, html: string | Uint8Array, given: Partial<Document> = {}): Document => ({
  turn: { urlId: 1, address: new URL(path, start).href, rank: 1, hops: 0 },
  body: Buffer.from(html),
  charset: undefined,
  directives: [],
  links: [],
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
        landmark: '',
        path: '',
        fragment: '',
        line: 0,
        column: 0,
      },
    ],
  }),
];

describe('threads that read documents', () => {
  it('find what is found in place, and answer in the order of asking', async () => {
    const readers = [threads(), openReaders(setup, 0)];
    const [there, here] = await Promise.all(readers.map(({ read }) => Promise.all(documents().map(read))));
    await Promise.all(readers.map(({ close }) => close()));
    expect(there.map(({ title }) => title)).toEqual(['Trams', null, 'Café', null, null, null]);
    expect(there.at(-1)).toMatchObject({ noindex: true, canonical: start });
    expect(there[0].discoveries).toHaveLength(200);
    expect(there).toEqual(structuredClone(here));
  });
  it('leave memory alone that others use', async () => {
    const { read, close } = threads();
    const shared = Buffer.from('<title>One</title><title>Two</title>');
    const views = [shared.subarray(0, 18), shared.subarray(18)];
    const readings = await Promise.all(views.map((body) => read(documentOf('/', body, { body }))));
    await close();
    expect(readings.map(({ title }) => title)).toEqual(['One', 'Two']);
    expect(shared.toString()).toContain('Two');
  });
  it('become more, and share the work, when there is much of it', async () => {
    const { read, close } = threads(2);
    const many = Array.from({ length: 1200 }, (_, i) => String(i));
    const readings = await Promise.all(
      many.map((i) => read(documentOf(`/${i}`, `<title>${i}</title><a href="/same">`))),
    );
    await close();
    expect(readings.map(({ title }) => title)).toEqual(many);
    // Each of them tells of an address once.
    expect(readings.flatMap(({ discoveries }) => discoveries)).toHaveLength(2);
  });
  it('tell of a document that they cannot read, and read on', async () => {
    const { read, close } = threads();
    const broken = { ...documentOf('/broken', 'x'), links: null } as unknown as Document;
    await expect(read(broken)).rejects.toThrow('https://museum.example/broken');
    expect(await read(documentOf('/', '<title>Whole'))).toMatchObject({ title: 'Whole' });
    await close();
  });
  it('leave nobody waiting when they end', async () => {
    const { read, close } = threads();
    const reading = read(documentOf('/', trams(50_000)));
    const told = expect(reading).rejects.toThrow(/ended with code/);
    await close();
    await told;
    await expect(read(documentOf('/', 'x'))).rejects.toThrow(/ended with code/);
  });
  it('are done without where they have not been built', async () => {
    const { read, close } = threads(1, join(process.cwd(), 'nowhere.js'));
    expect(await read(documentOf('/', '<title>Here'))).toMatchObject({ title: 'Here' });
    await close();
  });
});

it('what is built stands alone: a thread, or the demo website, must not load the command line with it', () => {
  for (const name of ['main', 'readerThread', 'demo'])
    expect(readFileSync(join('build-node', `${name}.cjs`), 'utf8')).not.toMatch(/\b(require|import)\(["'`]\.{1,2}\//);
});
