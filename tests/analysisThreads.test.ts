/** The threads that read and analyse larger crawls, as they are built, beside an analysis in place. */
import { readdirSync, readFileSync } from 'node:fs';
import { constants, getPriority } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { settingsSchema } from '$core/settings';
import { encodeBase } from '$core/snapshot';
import { TINY_START, tinyBase } from '$core/testing/tinySite';
import { getCrawl, isConnectionLoss, readBase, savePages, seedFrontier } from '$server/index';
import type { Crawl } from '$server/index';
import { analyseInThread, readInThread } from '../src/crawl/analysisThreads';
import { analyseParts } from '../src/crawl/analysisParts';
import type { AnalysisStep } from '../src/crawl/analysisParts';
import { shareParts } from '../src/crawl/transfer';
import { testDatabase } from './support/database';
import type { TestDatabase } from './support/database';
import { click, pageAt, storedCrawl } from './support/storedCrawl';

const built = (name: string) => join(process.cwd(), 'build-node', `${name}.cjs`);
const file = built('analysisThread');
const settings = settingsSchema.parse({ start: TINY_START });
const base = () =>
  encodeBase(tinyBase({ '/': { links: ['/trams', '/old'] }, '/trams': { links: ['/'] }, '/old': { status: 404 } }));

/** Of all threads of this process (proc(5), the 19th field of `stat`). */
const prioritiesOfThreads = () =>
  readdirSync('/proc/self/task').flatMap((id) => {
    try {
      return Number(readFileSync(`/proc/self/task/${id}/stat`, 'utf8').split(') ')[1].split(' ')[16]);
    } catch {
      // It has ended since.
      return [];
    }
  });

describe('the threads of an analysis', () => {
  it('find what is found in place', async () => {
    const [there, here]: AnalysisStep[][] = [[], []];
    const parts = shareParts(base());
    const found = await analyseInThread({ parts, settings }, (step) => there.push(step), { file });
    const port = { postMessage: (step: AnalysisStep) => here.push(step) };
    const inPlace = analyseParts({ parts: base(), settings, port });
    expect([...found.keys()].sort()).toEqual([...inPlace.keys()].sort());
    for (const [name, bytes] of inPlace) expect([name, [...found.get(name)!]]).toEqual([name, [...bytes]]);
    // Steps come by a way of their own: the last ones may not have arrived before the answer.
    expect(there.length).toBeGreaterThan(0);
    for (const { step, done, of } of there) {
      expect(done).toBeLessThanOrEqual(of);
      expect(here.map((one) => one.step)).toContain(step);
    }
  });
  it('stand back beside a crawl, and no other thread does', async () => {
    const before = getPriority();
    const parts = shareParts(base());
    const met = new Set<number>();
    const look = () => prioritiesOfThreads().forEach((priority) => met.add(priority));
    await analyseInThread({ parts, settings }, look, { file, isBeside: true });
    expect([...met].sort()).toEqual([before, constants.priority.PRIORITY_BELOW_NORMAL]);
    expect(getPriority()).toBe(before);
  });
  it('end when they are told to', async () => {
    const stop = new AbortController();
    const analysing = analyseInThread({ parts: shareParts(base()), settings }, () => {}, {
      ...{ file, signal: stop.signal },
    });
    stop.abort();
    await expect(analysing).rejects.toThrow();
  });
});

describe('the thread that reads a crawl', () => {
  const file = built('baseThread');
  let test: TestDatabase;
  let row: Crawl;
  beforeAll(async () => {
    test = await testDatabase();
    const start = 'https://threads.example/';
    const { id, store, frontier } = await storedCrawl(test.db, start);
    await seedFrontier(store, [start], 0);
    const [queued] = await frontier.take(0, 1, { pages: 1, external: 0 });
    const known = [{ address: `${start}trams`, rank: 1, hops: 0 }];
    await savePages(store, [pageAt(queued, known, [click(`${start}trams`, 'Trams')])]);
    row = (await getCrawl(test.db, id))!;
  });
  afterAll(() => test.drop());

  it('gives the parts of the base, in memory that other threads see', async () => {
    const parts = await readInThread({ url: test.db.url, row, left: 'stopped' }, { file });
    const inPlace = encodeBase(await readBase(test.db, row, 'stopped'));
    expect([...parts.keys()]).toEqual([...inPlace.keys()]);
    for (const [name, bytes] of inPlace) expect([name, [...parts.get(name)!]]).toEqual([name, [...bytes]]);
    for (const { buffer } of parts.values()) expect(buffer).toBeInstanceOf(SharedArrayBuffer);
  });
  it('ends when it is told to, and says what it met', async () => {
    const stop = AbortSignal.abort();
    await expect(readInThread({ url: test.db.url, row, left: 'stopped' }, { file, signal: stop })).rejects.toThrow();
    const url = `${test.db.url}_missing`;
    const error: unknown = await readInThread({ url, row, left: 'stopped' }, { file }).catch((error) => error);
    expect(String(error)).toMatch(/Unknown database|Failed query/);
    expect(isConnectionLoss(error)).toBe(false);
  });
});
