import { setTimeout as sleep } from 'node:timers/promises';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { crawlState, getCrawl, openReport, openSnapshot, selectPages } from '$server/index';
import { crawling, firstLease, tree, until } from '../../tests/support/crawling';
import { testDatabase } from '../../tests/support/database';
import type { TestDatabase } from '../../tests/support/database';
import { standIn } from '../../tests/support/standIn';
import { analyseAlong } from './soFar';

let test: TestDatabase;
beforeAll(async () => (test = await testDatabase()));
afterAll(() => test.drop());

/** A crawl of 364 pages that is analysed again and again meanwhile, unless it is fast and younger than this. */
async function crawlAnalysedAlong(fastMs: number) {
  const site = await standIn(tree(5, 40));
  const { begin, finish } = crawling(() => test.db);
  const id = await begin(`${site.origin}/`);
  const finished = finish(id);
  const intervals = { lookMs: 20, firstMs: 0, fastMs, apartMs: 0, fastRate: 0 };
  const stop = analyseAlong(test.db, firstLease(id), (await getCrawl(test.db, id))!, intervals);
  return { site, id, finished, stop };
}

it('opens a crawl on what it has found so far, and then on all of it', async () => {
  const { site, id, finished, stop } = await crawlAnalysedAlong(0);
  let state = await crawlState(test.db, id);
  for (const began = Date.now(); !state!.analysedAt && Date.now() - began < 30_000; await sleep(20))
    state = await crawlState(test.db, id);
  expect(state).toMatchObject({ state: 'running' });
  const early = (await openSnapshot(test.db, state!))!;
  const queued = selectPages(early, 'unvisited_reason = queued').pages;
  expect(queued.words.some(Boolean)).toBe(true);
  expect((await openReport(test.db, state!))!.counts.known).toBe(early.count);
  // Whatever pages link to is among the known addresses, however the crawl went on meanwhile.
  expect(early.outside).toEqual([]);
  await stop();
  const { snapshot } = await finished;
  await site.close();
  expect(snapshot.count).toBe(364);
  expect(selectPages(snapshot, 'unvisited').pages.words.every((word) => word === 0)).toBe(true);
  const end = (await crawlState(test.db, id))!;
  expect(end.counts).toMatchObject({ known: 364, indexable: 364 });
  expect(end.space).toBeGreaterThan(364 * 600);
});

it('leaves the processor to a crawl that fetches fast', async () => {
  const { site, id, finished, stop } = await crawlAnalysedAlong(600_000);
  const { analysedAt } = (await crawlState(test.db, id))!;
  await until(async () => (await crawlState(test.db, id))!.done > 200, 'more than 200 pages are fetched');
  expect((await crawlState(test.db, id))!.analysedAt).toEqual(analysedAt);
  await stop();
  await finished;
  await site.close();
});
