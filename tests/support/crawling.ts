import type { ServerResponse } from 'node:http';
import { settingsSchema } from '$core/settings';
import type { CrawlSettings, Secrets } from '$core/settings';
import { factAt, pageOf } from '$core/snapshot';
import type { FactName, Snapshot } from '$core/snapshot';
import { pagesCsv } from '$core/formats';
import { addCrawl, getCrawl, openSnapshot, saveSite } from '$server/index';
import type { Database } from '$server/index';
import { runJob } from '../../src/crawl';
import type { Timeouts } from '../../src/crawl/client';
import { linking } from './standIn';

export type Given = Partial<CrawlSettings>;

/** Crawls sites with a test's own database, in the test's own process. */
export function crawling(db: () => Database, timeouts?: Timeouts) {
  /** Adds a crawl; without an owner it waits for a worker. */
  async function begin(start: string, given: Given = {}, owner: string | null = 'test', secrets?: Secrets) {
    const settings = settingsSchema.parse({ start, ...given });
    return addCrawl(db(), await saveSite(db(), settings, secrets), settings, owner ?? undefined);
  }
  async function finish(crawlId: number, signal = new AbortController().signal, owner = 'test') {
    const ending = await runJob({ db: db(), crawlId, owner, allowPrivate: true, signal, timeouts });
    return { crawlId, ending, snapshot: (await snapshotOf(crawlId))! };
  }
  async function snapshotOf(crawlId: number) {
    return openSnapshot(db(), (await getCrawl(db(), crawlId))!);
  }
  const crawl = async (start: string, given: Given = {}, secrets?: Secrets) =>
    finish(await begin(start, given, 'test', secrets));
  return { begin, finish, crawl, snapshotOf };
}

/** Reads facts by path. */
export const reader = (snapshot: Snapshot, origin: string) => (path: string, name: FactName) => {
  const page = pageOf(snapshot, path.startsWith('http') ? path : origin + path);
  return page < 0 ? 'no such page' : factAt(snapshot, name, page);
};

export const csv = (snapshot: Snapshot) => [...pagesCsv(snapshot)].join('');

/**
 * A tree of pages, three below each, answered after a pause.
 * @param depth of the leaves; 4 makes 121 pages, 5 makes 364
 */
export const tree =
  (depth: number, pauseMs = 50) =>
  (path: string) => {
    if (path === '/robots.txt' || path.includes('.xml')) return undefined;
    const base = path === '/' ? '' : path;
    const below =
      path.split('/').filter(Boolean).length < depth ? ['a', 'b', 'c'].map((name) => `${base}/${name}`) : [];
    const body = linking(path, ...below, '/');
    return (_: unknown, response: ServerResponse) =>
      void setTimeout(() => response.setHeader('content-type', 'text/html').end(body), pauseMs);
  };

export const until = async (met: () => Promise<boolean>) => {
  while (!(await met())) await new Promise((resolve) => setTimeout(resolve, 10));
};
