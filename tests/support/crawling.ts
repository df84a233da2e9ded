import type { ServerResponse } from 'node:http';
import { settingsSchema } from '$core/settings';
import type { CrawlSettings, Secrets } from '$core/settings';
import { isColumnName } from '$core/facts';
import type { FactName } from '$core/facts';
import { sentence } from '$core/messages';
import { verdictReason } from '$core/verdict';
import { factAt, pageOf } from '$core/snapshot';
import type { Snapshot } from '$core/snapshot';
import type { View } from '$core/view';
import { pagesCsv } from '$core/formats';
import { addCrawl, getCrawl, openSnapshot, saveList, saveSite, SETTINGS_LIST } from '$server/index';
import type { Database, Lease } from '$server/index';
import { runCrawl } from '../../src/crawl';
import type { Timeouts } from '../../src/crawl/client';
import { linking } from './standIn';

export type Given = Partial<CrawlSettings> & {
  /** Addresses that a list of the person's own knows. */
  lists?: string[];
};

/** The lease that a crawl of `test` has from the beginning. */
export const firstLease = (crawlId: number, owner = 'test'): Lease => ({ crawlId, kind: 'crawl', owner, number: 1 });

/** Crawls sites with a test's own database, in the test's own process. */
export function crawling(db: () => Database, timeouts?: Timeouts) {
  /** Adds a crawl; without an owner it waits for a worker. */
  async function begin(
    start: string,
    { lists, ...given }: Given = {},
    owner: string | null = 'test',
    secrets?: Secrets,
  ) {
    const settings = settingsSchema.parse({ start, ...given });
    const site = await saveSite(db(), settings, secrets);
    if (lists) await saveList(db(), site, SETTINGS_LIST, lists);
    return addCrawl(db(), site, settings, owner ?? undefined);
  }
  /** Runs a crawl to its end, by the lease that adding it gave or by another one. */
  async function finish(crawlId: number, signal = new AbortController().signal, lease = firstLease(crawlId)) {
    const { owner } = lease;
    const ending = await runCrawl({ db: db(), lease, owner, allowPrivate: true, signal, timeouts });
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
  if (page < 0) return 'no such page';
  return isColumnName(name) ? factAt(snapshot, name, page) : sentence(verdictReason(snapshot, page));
};

export const csv = (snapshot: View) => [...pagesCsv(snapshot)].join('');

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

/** Waits until something is so. @throws Error when it is not so after a minute */
export async function until(met: () => Promise<boolean> | boolean, what = String(met)): Promise<void> {
  const deadline = Date.now() + 60_000;
  while (!(await met())) {
    if (Date.now() > deadline) throw new Error(`Not so after a minute: ${what}`);
    await new Promise((resolve) => setTimeout(resolve, 10));
  }
}
