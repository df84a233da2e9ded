import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { settingsFile, settingsSchema } from '$core/settings';
import { readCrawlCall, readExportCall, readSelectCall, UsageError } from './options';

describe('edgemap crawl', () => {
  it('reads its options', () =>
    expect(
      readCrawlCall([
        'museum.example',
        '--limit',
        '50',
        '--depth=3',
        '--connections',
        '2',
        '--look-past-robots',
        '--insecure',
        '--sitemap',
        'https://museum.example/a.xml',
        '--sitemap',
        'https://museum.example/b.xml',
        '--override',
        'museum.example=127.0.0.1:81',
        '--out',
        'x',
      ]),
    ).toMatchObject({
      out: 'x',
      settings: {
        start: 'https://museum.example/',
        limit: 50,
        depth: 3,
        connections: 2,
        robots: 'look-past',
        sitemaps: ['https://museum.example/a.xml', 'https://museum.example/b.xml'],
        overrides: [{ host: 'museum.example', toHost: '127.0.0.1', toPort: 81 }],
        acceptCertificates: true,
      },
    }));
  it('reads a file of settings, before which its own options go', () => {
    const folder = mkdtempSync(join(tmpdir(), 'edgemap-settings-'));
    const file = join(folder, 's.json');
    writeFileSync(
      file,
      settingsFile(settingsSchema.parse({ start: 'https://other.example/', depth: 3, rate: 2, exclude: ['/a'] })),
    );
    const { settings } = readCrawlCall(['a.example', '--settings', file, '--rate', '0.5', '--host', 'b.example']);
    rmSync(folder, { recursive: true });
    expect(settings).toMatchObject({
      start: 'https://a.example/',
      depth: 3,
      rate: 0.5,
      exclude: ['/a'],
      hosts: ['b.example'],
    });
  });
  it.each([
    [[], /one address/],
    [['a.example', 'b.example'], /one address/],
    [['not a url'], /not a URL/],
    [['a.example', '--limit', 'ten'], /--limit takes a whole number/],
    [['a.example', '--limit', '0'], /--limit/],
    [['a.example', '--connections', '1000'], /--connections/],
    [['a.example', '--obey-robots', '--look-past-robots'], /exclude each other/],
    [['a.example', '--override', 'a.example'], /host=address:port/],
    [['a.example', '--sitemap', 'map'], /--sitemap takes a URL/],
    [['a.example', '--rate', '0'], /--rate takes a number above 0/],
    [['a.example', '--settings', '/nowhere.json'], /--settings: .*nowhere/],
    [['a.example', '--settings', 'package.json'], /--settings: The file holds no settings/],
    [['a.example', '--colour'], /--colour/],
    [['a.example', '--out'], /--out/],
  ])('refuses %o', (words, message) => {
    expect(() => readCrawlCall(words)).toThrow(UsageError);
    expect(() => readCrawlCall(words)).toThrow(message);
  });
});

describe('looking at a finished crawl', () => {
  it('takes a number, a folder and how to look', () => {
    const { crawl, out, view } = readExportCall([
      '12',
      '--out',
      'x',
      '--select',
      'depth > 3',
      '--sort',
      'share:desc',
      '--share-model',
      'plain',
    ]);
    expect({ crawl, out, sort: view.sort, model: view.shareModel }).toEqual({
      crawl: 12,
      out: 'x',
      sort: { fact: 'share', descending: true },
      model: 'plain',
    });
    expect(readSelectCall(['12']).view.select).toEqual({ op: 'all' });
    expect(readCrawlCall(['a.example', '--sort', 'depth']).view.sort).toEqual({ fact: 'depth', descending: false });
  });
  it.each([
    [['x', '--out', 'y'], /number of a crawl/],
    [['1'], /--out FOLDER/],
    [['1', 'depth > 3', '--out', 'y'], /follows --select/],
    [['1', '--out', 'y', '--sort', 'weight'], /--sort takes a fact/],
    [['1', '--out', 'y', '--sort', 'depth:up'], /--sort takes a fact/],
    [['1', '--out', 'y', '--share-model', 'mine'], /site or plain/],
    [['1', '--out', 'y', '--select', 'depth >'], /a number.*\n {2}depth >\n {9}\^$/],
  ])('refuses %o', (words, message) => expect(() => readExportCall(words)).toThrow(message));
  it('wants a selection as one word', () => expect(() => readSelectCall(['1', 'depth', '>', '3'])).toThrow(/quotes/));
});
