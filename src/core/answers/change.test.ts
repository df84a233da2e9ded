import { describe, expect, it } from 'vitest';
import { comparePages } from '../compare';
import { settingsSchema } from '../settings';
import { countBits, evaluateRows, parseSelection } from '../selection';
import { TINY_START, tinySite } from '../testing/tinySite';
import type { TinyPage } from '../testing/tinySite';
import { changeAnswer, changeCounts, changeFlow, flowCategories } from '.';
import { withComparison } from '../view';

const { thresholds } = settingsSchema.parse({ start: TINY_START });
const then: Record<string, TinyPage> = {
  '/': { links: ['/a', '/b', '/old', '/left'] },
  '/a': { title: 'Trams' },
  '/b': {},
  '/old': { title: 'Depot' },
  '/left': { links: ['/lost'] },
  '/lost': {},
  '/calm': {},
};
const now: Record<string, TinyPage> = {
  '/': { links: ['/a', '/b', '/old', '/fresh'] },
  '/a': { title: 'Buses', noindex: true },
  '/b': { status: 404, html: false, title: null },
  '/old': { status: 301, html: false, redirectTo: '/fresh', title: null },
  '/fresh': { title: 'Depot' },
  '/lost': {},
  '/calm': {},
};
const compared = (a: typeof then, b: typeof then) => {
  const [old, fresh] = [tinySite(a), tinySite(b)];
  return withComparison(fresh, comparePages(old, fresh));
};
const beside = compared(then, now);
const held = (select: string) => {
  const parsed = parseSelection(select);
  if (!parsed.ok) throw new Error(`${select}: ${parsed.fault.message}`);
  return countBits(evaluateRows(beside, parsed.selection));
};

describe('the answer of Change', () => {
  it('says what moved, and each number selects what it counts', () => {
    const pieces = changeAnswer(beside, 'crawl 1');
    const text = pieces.map((piece) => piece.text).join('');
    expect(text).toMatch(
      /^Since crawl 1, 1 page is new, 1 is no longer known, 1 is gone, 1 has moved and \d have changed/,
    );
    expect(text).toContain('could be indexed then and cannot now');
    expect(text).toContain('1 lost its route.');
    const counting = pieces.filter(({ select }) => select !== undefined);
    expect(counting.length).toBeGreaterThan(5);
    for (const { text: number, select } of counting) expect([select, held(select!)]).toEqual([select, Number(number)]);
  });
  it('says so when nothing has moved', () =>
    expect(changeAnswer(compared(then, then), 'crawl 1').map(({ text }) => text)).toEqual([
      'Nothing has moved since crawl 1: all 7 pages are as they were.',
    ]));
  it('does not count as lost what was not fetched again', () => {
    const unvisited: TinyPage = { unvisitedReason: 'limit', status: null, html: false, title: null };
    const { comparison } = compared(
      { '/': { links: ['/a', '/b'] }, '/a': {}, '/b': unvisited },
      {
        '/': { links: ['/a', '/b'] },
        '/a': unvisited,
        '/b': {},
      },
    );
    expect(changeCounts(comparison)).toMatchObject({ lost: 0, won: 0, unfetchedNow: 1, unfetchedThen: 1 });
  });
  it('knows the new pages to which pages have moved', () =>
    expect(changeCounts(beside.comparison)).toMatchObject({ arrived: 1, lost: 3, won: 0, routesLost: 1 }));
});

describe('from then to now', () => {
  it.each(flowCategories)('each stream by %s selects as many pages as it has', (category) => {
    const flow = changeFlow(beside.comparison, category, 'no_title', thresholds);
    expect(flow.streams.length).toBeGreaterThan(0);
    for (const { select, pages } of flow.streams) expect([select, held(select)]).toEqual([select, pages]);
    expect(flow.streams.reduce((sum, { pages }) => sum + pages, 0)).toBe(beside.comparison.rows);
  });
  it('has nothing to show for a finding that there is not', () =>
    expect(changeFlow(beside.comparison, 'finding', 'nonsense', thresholds).values).toEqual([]));
});
