/** The index of a crawl's texts: a job beside the crawl, which is stopped, lost and made anew as others are. */
import { afterAll, beforeAll, expect, it } from 'vitest';
import { atOnce } from '$core/promises';
import { addressAt } from '$core/snapshot';
import {
  analysisProgress,
  firstShown,
  getCrawl,
  leaseJob,
  leaseWaiting,
  openPlaces,
  openTexts,
  placeReader,
  requestAnalysis,
  requestTexts,
  textsProgress,
} from '$server/index';
import { crawling } from '../../tests/support/crawling';
import { testDatabase } from '../../tests/support/database';
import type { TestDatabase } from '../../tests/support/database';
import { standIn } from '../../tests/support/standIn';
import type { StandIn } from '../../tests/support/standIn';
import { runAnalysis } from './job';
import { indexTexts } from './textIndex';

let test: TestDatabase;
let site: StandIn;
let crawlId: number;
const pageOfText = (title: string, body: string) =>
  `<html lang="en"><title>${title}</title><main><h1>${title}</h1><p>Of ${title} there is little to say here.</p>${body}`;
const pages: Record<string, string> = {
  '/': pageOfText('Museum', '<a href="/trams">Trams</a> <a href="/boats">Boats</a> <a href="/menu">Menu</a>'),
  '/trams': pageOfText('Trams', '<p>She stood in\n  the Lantern Lane depot for <b>years</b>.</p>'),
  '/boats': pageOfText('Boats', '<p>Nothing is said of it here.</p>'),
  '/menu': pageOfText('Menu', '<a href="/depot">More</a>'),
  '/depot': pageOfText('Lantern Lane depot', ''),
};
const row = async () => (await getCrawl(test.db, crawlId))!;
const { crawl } = crawling(() => test.db);
beforeAll(async () => {
  [test, site] = await Promise.all([testDatabase(), standIn(pages)]);
  ({ crawlId } = await crawl(`${site.origin}/`));
});
afterAll(async () => {
  await site.close();
  await test.drop();
});

it('is made when it is asked for, beside the job of the crawl, and read', async () => {
  expect(await openTexts(test.db, await row())).toBeNull();
  expect(await textsProgress(test.db, crawlId)).toBeNull();
  await requestTexts(test.db, crawlId);
  await requestTexts(test.db, crawlId);
  expect(await textsProgress(test.db, crawlId)).toMatchObject({ stepsDone: 0 });
  expect(await analysisProgress(test.db, crawlId)).toBeNull();
  const lease = (await leaseJob(test.db, 'worker'))!;
  expect(lease).toMatchObject({ crawlId, kind: 'texts' });
  expect(await leaseWaiting(test.db, crawlId, 'texts', 'another')).toBeNull();
  await indexTexts({ db: test.db, lease });
  expect(await textsProgress(test.db, crawlId)).toBeNull();
  const index = (await openTexts(test.db, await row()))!;
  expect(index).toMatchObject({ pages: 5, languages: ['en'] });
  const places = (await openPlaces(test.db, await row()))!;
  const { view } = places.site;
  const target = index.pageNumbers.find((page) => addressAt(view, page).endsWith('/depot'))!;
  const found = atOnce(places.to([target])).get(target)!;
  const [place] = await firstShown(placeReader(test.db, await row(), places), found, 5);
  expect(place.at).toMatchObject({ line: 2, column: 7, anchor: 'Lantern Lane depot', before: 'She stood in the ' });
  expect(index.goodPlaces.get(target)).toBe(1);
});
it('is given back when the worker ends, taken over when it has died, and left to whoever has it', async () => {
  await requestTexts(test.db, crawlId);
  const lease = (await leaseJob(test.db, 'worker'))!;
  await indexTexts({ db: test.db, lease, signal: AbortSignal.abort('shutdown') });
  const next = (await leaseWaiting(test.db, crawlId, 'texts', 'dying'))!;
  await test.db.$client.query("update job set lease_until = lease_until - interval 60 second where kind = 'texts'");
  const taken = (await leaseWaiting(test.db, crawlId, 'texts', 'third'))!;
  expect(taken.number).toBe(next.number + 1);
  await indexTexts({ db: test.db, lease: next });
  expect(await textsProgress(test.db, crawlId)).not.toBeNull();
  await indexTexts({ db: test.db, lease: taken });
  expect(await textsProgress(test.db, crawlId)).toBeNull();
});
it('is of one analysis, and none of the next', async () => {
  await requestAnalysis(test.db, crawlId);
  const lease = (await leaseJob(test.db, 'worker'))!;
  expect(lease.kind).toBe('analysis');
  await runAnalysis({ db: test.db, lease });
  expect(await openTexts(test.db, await row())).toBeNull();
});
