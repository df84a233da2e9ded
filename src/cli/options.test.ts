import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it, vi } from 'vitest';
import { settingsFile, settingsSchema } from '$core/settings';
import { EXIT_USAGE, runProgram } from './program';
import type { CrawlCall, Handlers } from './commands/handlers';
import { isError } from '$core/errors';

/** Calls the program without doing what its commands do. @returns what would be done, or what was said instead */
async function call<Name extends keyof Handlers>(
  name: Name,
  ...words: string[]
): Promise<{ given: Parameters<Handlers[Name]>[0] | undefined; code: number; said: string }> {
  let given: unknown;
  let said = '';
  const take = async (value?: unknown) => ((given = value), 0);
  const names = ['crawl', 'export', 'select', 'sample', 'worker', 'serve', 'migrate', 'demo'] as const;
  const spies = (['stdout', 'stderr'] as const).map((stream) =>
    vi.spyOn(process[stream], 'write').mockImplementation((text) => ((said += String(text)), true)),
  );
  const handlers = Object.fromEntries(names.map((one) => [one, take])) as unknown as Handlers;
  const code = await runProgram(handlers, [name, ...words])
    .catch((error: unknown) => {
      if (!isError(error, 'usage')) throw error;
      said += error.message;
      return EXIT_USAGE;
    })
    .finally(() => spies.forEach((spy) => spy.mockRestore()));
  return { given: given as Parameters<Handlers[Name]>[0], code, said };
}
const crawlCall = async (...words: string[]) => (await call('crawl', ...words)).given as CrawlCall;

describe('edgemap crawl', () => {
  it('reads its options', async () =>
    expect(
      await crawlCall(
        'museum.example',
        '--limit',
        '50',
        '--depth=3',
        '--connections',
        '2',
        '--ignore-robots',
        '--insecure',
        '--sitemap',
        'https://museum.example/a.xml',
        '--sitemap',
        'https://museum.example/b.xml',
        '--override',
        'museum.example=127.0.0.1:81',
        '--out',
        'x',
      ),
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
  it('takes the name that an option had before', async () =>
    expect((await crawlCall('a.example', '--look-past-robots')).settings.robots).toBe('look-past'));
  it('reads a file of settings, before which its own options go', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'edgemap-settings-'));
    const file = join(folder, 's.json');
    writeFileSync(
      file,
      settingsFile(settingsSchema.parse({ start: 'https://other.example/', depth: 3, rate: 2, exclude: ['/a'] })),
    );
    const { settings } = await crawlCall('a.example', '--settings', file, '--rate', '0.5', '--host', 'b.example');
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
    [[], /missing required argument 'start'/],
    [['a.example', 'b.example'], /too many arguments/],
    [['not a url'], /not a URL/],
    [['a.example', '--limit', 'ten'], /--limit.*whole number, not “ten”/],
    [['a.example', '--limit', '0'], /--limit/],
    [['a.example', '--connections', '1000'], /--connections/],
    [['a.example', '--obey-robots', '--look-past-robots'], /cannot be used with/],
    [['a.example', '--override', 'a.example'], /--override.*host=address:port, not/],
    [['a.example', '--sitemap', 'map'], /--sitemap.*a URL, not “map”/],
    [['a.example', '--rate', '0'], /--rate.*a number above 0/],
    [['a.example', '--settings', '/nowhere.json'], /--settings.*nowhere/],
    [['a.example', '--settings', 'package.json'], /--settings.*The file holds no settings/],
    [['a.example', '--colour'], /--colour/],
    [['a.example', '--out'], /--out/],
  ])('refuses %o', async (words, message) => {
    const { given, code, said } = await call('crawl', ...words);
    expect(given).toBeUndefined();
    expect(code).toBe(EXIT_USAGE);
    expect(said).toMatch(message);
  });
});

describe('looking at a finished crawl', () => {
  it('takes a number, a folder and how to look', async () => {
    const words = ['--out', 'x', '--select', 'depth > 3', '--sort', 'share:desc', '--share-model', 'plain'];
    const { given } = await call('export', '12', ...words);
    expect(given).toMatchObject({
      crawl: 12,
      out: 'x',
      view: { sort: { fact: 'share', descending: true }, shareModel: 'plain' },
    });
    expect((await call('select', '12')).given!.view.select).toEqual({ op: 'all' });
    expect((await crawlCall('a.example', '--sort', 'depth')).view.sort).toEqual({ fact: 'depth', descending: false });
  });
  it.each([
    [['x', '--out', 'y'], /number of a crawl, not “x”/],
    [['1'], /--out <folder>/],
    [['1', 'depth > 3', '--out', 'y'], /too many arguments/],
    [['1', '--out', 'y', '--sort', 'weight'], /--sort.*a fact, as depth or share:desc, not “weight”/],
    [['1', '--out', 'y', '--sort', 'depth:up'], /--sort.*a fact/],
    [['1', '--out', 'y', '--share-model', 'mine'], /site, plain/],
    [['1', '--out', 'y', '--select', 'depth >'], /a number.*\n {2}depth >\n {9}\^/],
  ])('refuses %o', async (words, message) => {
    const { given, code, said } = await call('export', ...words);
    expect([given, code]).toEqual([undefined, EXIT_USAGE]);
    expect(said).toMatch(message);
  });
  it('wants a selection as one word', async () =>
    expect((await call('select', '1', 'depth', '>', '3')).said).toMatch(/too many arguments/));
});

describe('help', () => {
  it('tells of every command that a person calls, and of none that only the program calls', async () => {
    const { said, code } = await call('help' as keyof Handlers);
    for (const name of ['demo', 'start', 'crawl', 'export', 'select', 'worker', 'bench', 'test'])
      expect(said).toMatch(new RegExp(`^  ${name}\\b`, 'm'));
    expect(said).not.toMatch(/serve|migrate|demo-crawl/);
    expect(code).toBe(0);
  });
  it.each(['crawl', 'export', 'select', 'worker'] as const)('of %s has its exit codes and an example', async (name) => {
    const { said, code } = await call(name, '--help');
    expect(said).toMatch(/Exit codes:\n {2}0/);
    expect(said).toMatch(/Examples:\n/);
    expect(code).toBe(0);
  });
  it('is pointed to when there is no such command', async () =>
    expect((await call('crwal' as keyof Handlers)).said).toMatch(/unknown command|There is no command/));
});

describe('edgemap sample', () => {
  it('reads its options', async () => {
    const { given } = await call('sample', '12', 'anchor_empty', '--n', '5', '--seed', '7', '--json');
    expect(given).toEqual({ crawl: 12, finding: 'anchor_empty', n: 5, seed: 7, json: true });
    expect((await call('sample', '12', 'starving')).given).toMatchObject({ n: 25, seed: 1, json: false });
  });
  it('asks for a crawl and a finding', async () => {
    expect((await call('sample', '12')).code).toBe(EXIT_USAGE);
    expect((await call('sample', 'x', 'starving')).code).toBe(EXIT_USAGE);
  });
});
