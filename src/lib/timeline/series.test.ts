import { expect, it } from 'vitest';
import { numberOf, placeOfDay, verdictBars } from './series';
import type { TimelineCrawl } from './series';

const counts = { known: 5, indexable: 3, noRoute: 1, findings: 2 };
const trend = { verdicts: [0, 0, 0, 0, 1, 0, 0, 1, 0, 3], orphans: 1, brokenLinks: 4, medianDepth: 2, topTen: 0.5 };
const crawl = (id: number, day: string, more: object = {}): TimelineCrawl => ({
  id,
  at: new Date(`${day}T12:00:00`),
  counts: { ...counts, ...more },
  pinned: false,
});

it('knows what older crawls have counted, and what they have not', () => {
  expect(numberOf(crawl(1, '2026-11-01'), 'noRoute')).toBe(1);
  expect(numberOf(crawl(1, '2026-11-01'), 'brokenLinks')).toBeNull();
  expect(numberOf(crawl(2, '2026-11-01', { trend }), 'brokenLinks')).toBe(4);
  expect(numberOf({ ...crawl(3, '2026-11-01'), counts: null }, 'known')).toBeNull();
});
it('stacks pages by verdict, those that may be indexed at the bottom', () => {
  const [older, newer] = verdictBars([crawl(1, '2026-11-01'), crawl(2, '2026-11-08', { trend })]);
  expect(older.parts).toBeNull();
  expect(newer.parts![0]).toEqual({ verdict: 'indexable', value: 3 });
});
it('puts a note between the crawls before it and those of its day', () => {
  const crawls = [crawl(1, '2026-11-01'), crawl(2, '2026-11-08'), crawl(3, '2026-11-08')];
  expect(
    ['2026-10-30', '2026-11-01', '2026-11-02', '2026-11-08', '2026-11-09'].map((day) => placeOfDay(crawls, day)),
  ).toEqual([0, 0, 1, 1, 3]);
});
