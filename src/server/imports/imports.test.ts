import { gzipSync } from 'node:zlib';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { EdgeMapError } from '$core/errors';
import { sentence } from '$core/messages';
import { settingsSchema } from '$core/settings';
import { testDatabase } from '../../../tests/support/database';
import type { TestDatabase } from '../../../tests/support/database';
import { importsOf, rejectsOf, removeImport, saveSite } from '..';
import { readContent } from './parts';
import { importFile, previewFile } from './readFile';
import type { FileToImport } from './readFile';

let test: TestDatabase;
let site: { id: number; settings: ReturnType<typeof settingsSchema.parse> };
beforeAll(async () => {
  test = await testDatabase();
  const settings = settingsSchema.parse({ start: 'https://www.larkfield.example/' });
  site = { id: await saveSite(test.db, settings), settings };
});
afterAll(() => test.drop());

/** A file in pieces, so that every place is a cut once. */
async function* pieces(bytes: Buffer, size = 7): AsyncGenerator<Uint8Array> {
  for (let at = 0; at < bytes.length; at += size) yield bytes.subarray(at, at + size);
}
const given = (content: string | Buffer, rest: Partial<FileToImport> = {}): FileToImport => ({
  kind: 'list',
  name: 'Test',
  file: 'test.csv',
  bytes: pieces(Buffer.from(content)),
  list: { column: null },
  crawlerAddresses: null,
  ...rest,
});
const take = (content: string | Buffer, rest: Partial<FileToImport> = {}) =>
  importFile(test.db, site, given(content, rest));
const line = (target: string, agent = '-') =>
  `203.0.113.9 - - [10/Oct/2026:13:55:36 +0000] "GET ${target} HTTP/1.1" 200 1 "-" "${agent}"`;

/** Two rows, `/visit` with 12 visits and `/shop` with 3.5, in Office Open XML. */
const sheet = [
  'UEsDBBQAAAAIAGCte12Yz1MF3AAAANMBAAATAAAAW0NvbnRlbnRfVHlwZXNdLnhtbK2RvU7EMBCEXyVyi86bo6BASa4AWqDgBRZn',
  'c7HiP3l9R3h7Nj6goAKJamXP7HwjbXdYvWvOlNnG0Ku9btVh6F7eE3EjSuBezaWkWwA2M3lkHRMFUaaYPRZ55iMkNAseCa7b9gZM',
  'DIVC2ZUtQw3dPU14cqV5WOX7QsnkWDV3F+PG6hWm5KzBIjqcw/iDsvskaNmsHp5t4isxKBi6J6mf7UjNM+byiF7iYHXwFvPyGuOi',
  'N9ufaHGarKExmpOXFc0pE448ExXvdJ3aow2/4FczQx37fy7ynf/VA+rZhg9QSwMEFAAAAAgAYK17XUuDozqWAAAABQEAAAsAAABf',
  'cmVscy8ucmVsc43PPQ7CMAwF4KtEPkDdMjCgpl1YuiIuEFL3R23iyAlQbk9GihgY/fz0Wa7bza3qQRJn9hqqooS2qS+0mpSDOM0h',
  'qtzwUcOUUjghRjuRM7HgQD5vBhZnUh5lxGDsYkbCQ1keUT4N2Juq6zVI11egrq9A/9g8DLOlM9u7I59+nPhqZNnISEnDtuKTZbkx',
  'L0VGAZsadw82b1BLAwQUAAAACABgrXtdIHRQMZ8AAAD4AAAADwAAAHhsL3dvcmtib29rLnhtbI2PORKDMAxFr+LRATCkSMEY06Sh',
  'yxUcENgDXkZyluPHA6FPpeWP3tdX/cdv4oXELoYOmqqGXqt3pPUR4yqKGLgDm3NqpeTRojdcxYShKHMkb3IZaZGcCM3EFjH7TV7q',
  '+iq9cQEOQkv/MOI8uxFvcXx6DPmAEG4ml9fYusSg1e7AvyqC8djB3SzIIPbVMJUQIKh1paFhakBqJc8reQbTX1BLAwQUAAAACABg',
  'rXtdbTbpdJoAAAAGAQAAGgAAAHhsL19yZWxzL3dvcmtib29rLnhtbC5yZWxzjc87DsIwDAbgq0Q+QN0yMKCmXVhYEReIUrep2jwU',
  'm9ftiRgQlRiYLP+2Pstt//CrulHmOQYNTVVD37VnWo2UgN2cWJWNwBqcSDogsnXkDVcxUSiTMWZvpLR5wmTsYibCXV3vMX8bsDXV',
  'adCQT0MD6vJM9I8dx3G2dIz26inIjxN4j3lhRyQFNXki0fCJGN+lqYoK2LW4+bB7AVBLAwQUAAAACABgrXtdahw8v90AAADJAQAA',
  'GAAAAHhsL3dvcmtzaGVldHMvc2hlZXQxLnhtbHWRXWrDMBCEr2J0AK1/SB+KrNDSAxQCfRfOJhbRH1ph5fiVTDFtsd+0szvzwUic',
  'n9Y0C0bS3o2s4y07S5F9fNCMmJqydTSyOaXwCkDTjFYR9wFd2dx8tCqVMd6BQkR1XU3WQN+2L2CVdkyKVftQSUkRfW5ioRR1qo+3',
  'jjVpZNoZ7fCSYtE1SZHkp7qjgCQF1Bmmn/v3o/svTTrRXwcU2obsN2R/EAFLzdiDVu8iu17AspM8bMnDQXItj0p7OWduVHzcNJor',
  'x6eywSDQ7MMedVipAz/9w8KvPmH7KPkNUEsBAhQDFAAAAAgAYK17XZjPUwXcAAAA0wEAABMAAAAAAAAAAAAAAIABAAAAAFtDb250',
  'ZW50X1R5cGVzXS54bWxQSwECFAMUAAAACABgrXtdS4OjOpYAAAAFAQAACwAAAAAAAAAAAAAAgAENAQAAX3JlbHMvLnJlbHNQSwEC',
  'FAMUAAAACABgrXtdIHRQMZ8AAAD4AAAADwAAAAAAAAAAAAAAgAHMAQAAeGwvd29ya2Jvb2sueG1sUEsBAhQDFAAAAAgAYK17XW02',
  '6XSaAAAABgEAABoAAAAAAAAAAAAAAIABmAIAAHhsL19yZWxzL3dvcmtib29rLnhtbC5yZWxzUEsBAhQDFAAAAAgAYK17XWocPL/d',
  'AAAAyQEAABgAAAAAAAAAAAAAAIABagMAAHhsL3dvcmtzaGVldHMvc2hlZXQxLnhtbFBLBQYAAAAABQAFAEUBAAB9BAAAAAA=',
].join('');

describe('a list', () => {
  const csv =
    'Page;Clicks\n/visit;1.204\nhttps://www.larkfield.example/shop;98,5\n/visit;6\nhttps://elsewhere.example/;1\n;2\n';
  const content = { '/shop': [1, 98.5], '/visit': [2, 1210] };
  const encodings: [string, Buffer][] = [
    ['UTF-8', Buffer.from(csv)],
    ['UTF-16', Buffer.from(`\ufeff${csv}`, 'utf16le')],
    ['gzip', gzipSync(csv)],
    ['tabs', Buffer.from(csv.replaceAll(';', '\t'))],
  ];
  it.each(encodings)('is read in %s, with its numbers added up by address', async (name, bytes) => {
    const outcome = await take(bytes, { name });
    expect(outcome).toMatchObject({ lines: 5, addresses: 2, matched: 0, fresh: 2, rejected: 2 });
    const { addresses, columns } = await readContent(test.db, outcome.id);
    expect(addresses).toEqual(Object.keys(content).map((path) => `https://www.larkfield.example${path}`));
    expect(addresses.map((_, i) => [columns.rows[i], columns.clicks[i]])).toEqual(Object.values(content));
  });
  it('says which lines it left out, and why', async () => {
    const { id } = await take(csv, { name: 'Rejects' });
    expect((await rejectsOf(test.db, site.id, id))!.map(({ line, reason }) => [line, sentence(reason)])).toEqual([
      [5, 'https://elsewhere.example/ does not belong to the site.'],
      [6, 'The row has no address.'],
    ]);
  });
  it('may have dates, of which the latest of an address counts', async () => {
    const { id } = await take('url,visits,last seen\n/a,1,2026-10-02\n/a,2,2026-09-30\n/b,3,\n', { name: 'Dates' });
    const { columns } = await readContent(test.db, id);
    expect([columns.visits[0], columns.last_seen_date[0]]).toEqual([3, Date.UTC(2026, 9, 2) / 1000]);
    expect(columns.last_seen_date[1]).toBeNaN();
  });
  it('may be JSON lines, or one address a line', async () => {
    const json = '{"url":"/a","visits":3}\n{"url":"/b","visits":null}\nbroken\n';
    expect(await take(json, { name: 'JSON' })).toMatchObject({ lines: 3, addresses: 2, rejected: 1 });
    expect(await take('/a\r\n\r\n/b\r\nhttps://elsewhere.example/', { name: 'Plain' })).toMatchObject({
      lines: 3,
      addresses: 2,
      rejected: 1,
    });
  });
  it('may be compressed with Zstandard', async () => {
    const raw = Buffer.from('url\n/a\n/b\n');
    // A frame of one block that is stored as it is (RFC 8878 §3.1.1).
    const head = [0x28, 0xb5, 0x2f, 0xfd, 0x20, raw.length, (raw.length << 3) | 1, 0, 0];
    expect(await take(Buffer.concat([Buffer.from(head), raw]), { name: 'Zstandard' })).toMatchObject({
      lines: 2,
      addresses: 2,
    });
  });
  it('may be a spreadsheet', async () => {
    const outcome = await take(Buffer.from(sheet, 'base64'), { name: 'Sheet', file: 'pages.xlsx' });
    expect(outcome).toMatchObject({ lines: 2, addresses: 2, rejected: 0 });
    expect([...(await readContent(test.db, outcome.id)).columns.visits]).toEqual([3.5, 12]);
  });
  it('is refused as a spreadsheet that would unfold to more than can be read', async () => {
    const files = unzipSync(Buffer.from(sheet, 'base64'));
    const withSheet = (cells: string) =>
      zipSync({
        ...files,
        'xl/worksheets/sheet1.xml': strToU8(`<worksheet><sheetData>${cells}</sheetData></worksheet>`),
      });
    // A cell in the first place, and one in the last.
    const far = '<row r="1"><c r="A1"><v>1</v></c></row><row r="1048576"><c r="XFD1048576"><v>1</v></c></row>';
    await expect(take(Buffer.from(withSheet(far)), { name: 'Far' })).rejects.toThrow(/more than 10,000,000 cells/);
    const large = Buffer.from(withSheet(' '.repeat(220 << 20)));
    expect(large.length).toBeLessThan(1 << 20);
    await expect(take(large, { name: 'Large' })).rejects.toThrow(/more than 200 MiB/);
  });
  it('that is uploaded four times at once is one source', async () => {
    const uploads = await Promise.all(Array.from({ length: 4 }, () => take('url\n/twice\n', { name: 'At once' })));
    expect(new Set(uploads.map(({ id }) => id)).size).toBe(1);
    expect(uploads.filter(({ before }) => before === null)).toHaveLength(1);
    expect((await importsOf(test.db, site.id)).filter(({ name }) => name === 'At once')).toHaveLength(1);
  });
  it.each([
    ['binary', Buffer.from(Array.from({ length: 5000 }, (_, i) => (i * 7919) % 256))],
    ['a quotation without end', Buffer.from(`url,n\n/a,1\n"/b,${'x'.repeat(600_000)}\n`)],
    ['one line without end', Buffer.from('x'.repeat(3_000_000))],
    ['a spreadsheet that is none', Buffer.from('PK\u0003\u0004 nothing of the kind')],
  ])('that is %s ends in words', async (_, bytes) => {
    const end = await importFile(test.db, site, given('', { name: 'Odd', bytes: pieces(bytes, 65_536) })).then(
      ({ rejected }) => `rejected ${rejected}`,
      (error: EdgeMapError) => `${error.code}: ${error.message}`,
    );
    expect(end).toMatch(/^(rejected [1-9]|import: )/);
  });
  it('in windows-1252 keeps its letters', async () => {
    const { id } = await take(Buffer.from('url,n\n/caf\u00e9,1\n/th\u00e9,2\n', 'latin1'), { name: 'Latin' });
    expect((await readContent(test.db, id)).addresses).toEqual([
      'https://www.larkfield.example/caf%C3%A9',
      'https://www.larkfield.example/th%C3%A9',
    ]);
  });
  it('is previewed before it is imported', async () => {
    const { layout, rows } = await previewFile(site.settings, pieces(Buffer.from(csv)), { column: null });
    expect(layout).toMatchObject({ delimiter: ';', hasHeader: true, addressColumn: 0, decimal: ',' });
    expect(rows[0]).toEqual(['Page', 'Clicks']);
  });
  it.each([
    ['without addresses', 'Name,Age\nAda,36\n', /No column of the file holds addresses.*Name, Age/],
    ['with nothing in it', '', /The file is empty/],
    ['of another site', 'url\nhttps://elsewhere.example/\n', /None of the 1 lines names an address of the site/],
    ['that is damaged', gzipSync('url\n/a\n').subarray(0, 20), /damaged or incomplete/],
  ])('%s is refused, and nothing is stored', async (_, content, message) => {
    const before = await importsOf(test.db, site.id);
    await expect(take(content, { name: 'Refused' })).rejects.toThrow(message);
    expect(await importsOf(test.db, site.id)).toEqual(before);
  });
  it('is known again by its bytes, and replaces another of its name', async () => {
    const first = await take('url\n/a\n', { name: 'Again' });
    const second = await take('url\n/a\n', { name: 'Again' });
    expect(second).toMatchObject({ id: first.id, before: { name: 'Again' } });
    const third = await take('url\n/a\n/b\n', { name: 'Again' });
    expect(third.before).toBeNull();
    const named = (await importsOf(test.db, site.id)).filter(({ name }) => name === 'Again');
    expect(named.map(({ id, urls }) => [id, urls])).toEqual([[third.id, 2]]);
    await removeImport(test.db, site.id, third.id);
    expect((await importsOf(test.db, site.id)).some(({ name }) => name === 'Again')).toBe(false);
  });
  it('read by another column is another source', async () => {
    const links = 'From,To\n/a,/b\n/a,/c\n';
    const from = await take(links, { name: 'Links', list: { column: 'From' } });
    const to = await take(links, { name: 'Links', list: { column: 'To' } });
    expect([from.addresses, to.addresses, to.before]).toEqual([1, 2, null]);
    expect((await readContent(test.db, to.id)).addresses).toEqual([
      'https://www.larkfield.example/b',
      'https://www.larkfield.example/c',
    ]);
  });
  it('that is stopped leaves nothing', async () => {
    const stop = new AbortController();
    const bytes = (async function* () {
      yield Buffer.from('url\n/a\n');
      stop.abort();
      yield Buffer.from('/b\n');
    })();
    await expect(take('', { name: 'Stopped', bytes, signal: stop.signal })).rejects.toThrow(/abort/i);
    expect((await importsOf(test.db, site.id)).some(({ name }) => name === 'Stopped')).toBe(false);
  });
});

describe('a log', () => {
  it('counts hits by address, whatever spelling they were asked for in', async () => {
    const content = [
      line('/%7evisit', 'searchbot/1.0'),
      line('/~visit'),
      line('https://www.larkfield.example/~visit'),
      line('/shop?a=1'),
      'nothing',
      line('https://elsewhere.example/'),
    ].join('\n');
    const outcome = await take(content, { kind: 'log', name: 'May' });
    expect(outcome).toMatchObject({ lines: 6, addresses: 2, rejected: 2 });
    const { addresses, columns } = await readContent(test.db, outcome.id);
    expect(addresses).toEqual(['https://www.larkfield.example/shop?a=1', 'https://www.larkfield.example/~visit']);
    expect([...columns.hits]).toEqual([1, 3]);
    expect([...columns.crawler_hits]).toEqual([0, 1]);
  });
  it('takes a search crawler for one only at its addresses, where these are given', async () => {
    const content = line('/a', 'searchbot/1.0');
    const of = async (crawlerAddresses: string[], name: string) =>
      (await readContent(test.db, (await take(content, { kind: 'log', name, crawlerAddresses })).id)).columns
        .crawler_hits[0];
    expect([await of(['203.0.113.0/24'], 'Theirs'), await of(['2001:db8::/32'], 'Others')]).toEqual([1, 0]);
    await expect(of(['everywhere'], 'Wrong')).rejects.toThrow(/no IP address or subnet/);
  });
  it('counts lines of every kind by what they ask for, wherever the file is cut', async () => {
    const long = `/long?${'x'.repeat(900)}`;
    const lines = [
      line('/a', 'searchbot/1.0'),
      String.raw`${line('/a')}\"`,
      line(String.raw`/\x61`),
      '{"url":"/a","status":200,"ts":1791633336}',
      '',
      line(long),
      line(long),
      `${line('/b')}\r`,
      'y'.repeat(200_000),
      line('/b'),
    ];
    const rejects: number[] = [];
    const of = async (size: number) => {
      const bytes = pieces(Buffer.from(lines.join('\n')), size);
      const name = `Cut into ${size}`;
      return take('', { kind: 'log', name, bytes, onReject: ({ line }) => rejects.push(line) });
    };
    const outcome = await of(1 << 16);
    expect(outcome).toMatchObject({ lines: 9, addresses: 3, rejected: 1 });
    expect(rejects).toEqual([9]);
    const { columns } = await readContent(test.db, outcome.id);
    expect([...columns.hits]).toEqual([4, 2, 2]);
    expect([...columns.crawler_hits]).toEqual([1, 0, 0]);
    const other = await readContent(test.db, (await of(997)).id);
    expect(other.columns).toEqual(columns);
  });
});
