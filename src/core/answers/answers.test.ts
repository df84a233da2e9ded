import { describe, expect, it } from 'vitest';
import { countBits, evaluate, parseSelection } from '../selection';
import { addressAt, factAt, pageOf, textAt } from '../snapshot';
import type { View } from '../view';
import { reportOf } from '../report';
import { settingsSchema } from '../settings';
import { verdicts } from '../facts';
import { tiny, tinySite } from '../testing/tinySite';
import type { TinyPage } from '../testing/tinySite';
import {
  depthBars,
  dossierOf,
  flowAnswer,
  indexSteps,
  noRoute,
  notCrawled,
  originCounts,
  overviewAnswer,
  reachAnswer,
  readerDifference,
  richAs,
  routeOf,
  routeWithout,
  sectionCounts,
  shareCurve,
  sourceCounts,
  topGates,
  verdictMakeUp,
} from '.';
import type { AnswerPiece } from '.';

const words = (pieces: AnswerPiece[]) => pieces.map(({ text }) => text).join('');
const masked = (snapshot: View, text: string) => {
  const parsed = parseSelection(text);
  if (!parsed.ok) throw new Error(parsed.fault.message);
  return evaluate(snapshot, parsed.selection);
};
/** `/` → /1 → /2 → … */
const chain = (length: number) =>
  Object.fromEntries(
    Array.from({ length: length + 1 }, (_, i): [string, TinyPage] => [
      i ? `/${i}` : '/',
      i < length ? { links: [`/${i + 1}`] } : {},
    ]),
  );

const near = { deepClicks: 3 };

describe('the answer of Reach', () => {
  it('counts near, deep and lost pages', () =>
    expect(words(reachAnswer(tinySite({ ...chain(5), '/lost': {}, '/lost2': {} }, ['/lost']), near))).toBe(
      '4 of 8 indexable pages are within 3 clicks of the start page. 2 are deeper and 2 have no route; the sitemap lists 1 of them.',
    ));
  it('says so when all is well', () =>
    expect(words(reachAnswer(tinySite(chain(1)), near))).toBe(
      '2 of 2 indexable pages are within 3 clicks of the start page. None is deeper, and none is without a route.',
    ));
  it('speaks of one page as of one', () =>
    expect(words(reachAnswer(tinySite({ '/': {}, '/lost': {} }, ['/lost']), near))).toBe(
      '1 of 2 indexable pages are within 3 clicks of the start page. 1 has no route, although the sitemap lists it.',
    ));
  it('does not count where nothing may be indexed', () =>
    expect(words(reachAnswer(tinySite({ '/': { noindex: true } }), near))).toMatch(/^No page/));
  it('counts as far what the settings call deep', () =>
    expect(words(reachAnswer(tinySite(chain(3)), { deepClicks: 2 }))).toContain('within 2 clicks'));
  it('selects exactly what each number counts', () => {
    const snapshot = tinySite({ ...chain(5), '/lost': {}, '/lost2': {}, '/shut': { noindex: true } }, [
      '/lost',
      '/shut',
    ]);
    for (const { text, select } of [...reachAnswer(snapshot, near), ...overviewAnswer(snapshot)]) {
      if (select === undefined || !/^\d+\b(?! click)/.test(text)) continue;
      const selected = countBits(masked(snapshot, select));
      expect([select, selected]).toEqual([select, parseInt(text)]);
    }
  });
});

describe('the depth chart', () => {
  const snapshot = tinySite({ ...chain(2), '/2': { noindex: true }, '/lost': {} });
  it('has a bar for each depth and one for what has no route', () => {
    const bars = depthBars(snapshot, masked(snapshot, ''));
    expect(bars.map(({ depth, pages }) => [depth, pages])).toEqual([
      [0, 1],
      [1, 1],
      [2, 1],
      [null, 1],
    ]);
    expect(bars[2].byVerdict[verdicts.indexOf('noindex')]).toBe(1);
  });
  it('counts what is selected within each bar', () =>
    expect(depthBars(snapshot, masked(snapshot, 'indexable')).map(({ selected }) => selected)).toEqual([1, 1, 0, 1]));
});

describe('the tables of Overview', () => {
  const snapshot = tinySite({ '/': { links: ['/a/1', '/a/2'] }, '/a/1': {}, '/a/2': { noindex: true }, '/b/1': {} }, [
    '/a/1',
    '/b/1',
  ]);
  it('make up the whole', () =>
    expect(verdictMakeUp(snapshot)).toEqual([
      { verdict: 'indexable', pages: 3 },
      { verdict: 'noindex', pages: 1 },
    ]));
  it('count what only one source knows', () =>
    expect(sourceCounts(snapshot)).toEqual([
      { source: 'start', knows: 1, alone: 1, lost: 0 },
      { source: 'links', knows: 2, alone: 1, lost: 0 },
      { source: 'sitemap', knows: 2, alone: 1, lost: 1 },
    ]));
  it('know the median depth of a section, where it has one', () => {
    expect(sectionCounts(snapshot)[0]).toMatchObject({
      section: 'a',
      pages: 2,
      indexable: 1,
      medianDepth: 1,
      noRoute: 0,
    });
    expect(sectionCounts(snapshot).find(({ section }) => section === 'b')).toMatchObject({
      medianDepth: null,
      noRoute: 1,
    });
  });
});

it.each<[string, TinyPage, string, number]>([
  ['unvisited', { unvisitedReason: 'limit', status: null, html: false }, 'Known, but not fetched', 0],
  [
    'blocked',
    { robotsRule: { line: 2, directive: 'disallow', path: '/', group: '*' }, status: null, html: false },
    'robots.txt closes it',
    1,
  ],
  ['unanswered', { error: 'timeout', status: null, html: false }, 'No answer', 2],
  ['failing', { status: 502, html: false }, 'Answers 502', 2],
  ['broken', { status: 410, html: false }, 'Answers 410', 2],
  ['redirect', { status: 301, html: false, redirectTo: '/' }, 'Redirects', 3],
  ['not_html', { html: false, contentType: 'application/pdf' }, 'Is not an HTML page', 4],
  ['noindex', { noindex: true, robots: 'noindex' }, 'noindex', 5],
  ['canonicalised', { canonical: '/' }, 'Canonical points elsewhere', 6],
])('a page that is %s is stopped there on its way to the index', (verdict, page, step, at) => {
  const snapshot = tinySite({ '/': { links: ['/p'] }, '/p': page });
  const steps = indexSteps(snapshot, pageOf(snapshot, tiny('/p')));
  expect(factAt(snapshot, 'verdict', pageOf(snapshot, tiny('/p')))).toBe(verdict);
  expect(steps[at]).toMatchObject({ text: step, state: 'stopped' });
  expect(steps.slice(0, at).every(({ state }) => state === 'passed')).toBe(true);
  expect(steps).toHaveLength(at + 2);
  expect(steps[at].evidence).not.toBe('');
});

describe('the dossier', () => {
  const snapshot = tinySite(
    {
      '/': {
        worded: [
          ['/old', 'Prices'],
          ['/a', 'A'],
        ],
      },
      '/a': {
        worded: [
          ['/new', 'new prices'],
          ['/new', 'again'],
          ['/shut', ''],
        ],
      },
      '/old': { status: 301, html: false, redirectTo: '/new' },
      '/new': {},
      '/shut': { robotsRule: { line: 3, directive: 'disallow', path: '/shut', group: '*' }, status: null, html: false },
      '/lost': {},
    },
    ['/lost'],
  );
  const open = (path: string) => dossierOf(snapshot, pageOf(snapshot, tiny(path)));
  it('shows the route, and where it goes by redirect', () =>
    expect(open('/new').route.map(({ address, byRedirect }) => [address, byRedirect])).toEqual([
      [tiny('/'), false],
      [tiny('/old'), false],
      [tiny('/new'), true],
    ]));
  it('marks gates on the route, and finds the way round what is none', () => {
    const site = tinySite({
      '/': { links: ['/a', '/b'] },
      '/a': { links: ['/hub'] },
      '/b': { links: ['/hub'] },
      '/hub': { links: ['/end'] },
      '/end': {},
    });
    const page = (path: string) => pageOf(site, tiny(path));
    const paths = (route: { address: string }[]) => route.map(({ address }) => new URL(address).pathname);
    const route = routeOf(site, page('/end'), 'visitor');
    expect(route.map(({ gate }) => gate)).toEqual([false, false, true, false]);
    expect(paths(routeWithout(site, page('/end'), page('/a'), 'visitor'))).toEqual(['/', '/b', '/hub', '/end']);
    expect(routeWithout(site, page('/end'), page('/hub'), 'visitor')).toEqual([]);
  });
  it('has each page below its parent on the route', () => {
    const site = tinySite({
      '/': { links: ['/a', '/old', '/well'] },
      '/a': { links: ['/end'] },
      '/old': { redirectTo: '/moved' },
      '/moved': { links: ['/end', '/deeper'] },
      '/well': { links: ['/end'] },
      '/a2': { links: ['/well'] },
      '/end': { links: ['/deeper'] },
      '/deeper': {},
    });
    for (let page = 0; page < site.count; page++) {
      const above = routeOf(site, page, 'visitor').at(-2)?.address ?? null;
      expect([addressAt(site, page), textAt(site, 'parent', page)]).toEqual([addressAt(site, page), above]);
    }
    expect(textAt(site, 'parent', pageOf(site, tiny('/moved')))).toBe(tiny('/old'));
    expect(textAt(site, 'parent', pageOf(site, tiny('/end')))).toBe(tiny('/well'));
  });
  it('knows the route of a search crawler', () => {
    const site = tinySite({ '/': { links: ['/a'] }, '/a': { links: ['/b'], pageNofollow: true }, '/b': {} });
    expect(routeOf(site, pageOf(site, tiny('/b')), 'visitor')).toHaveLength(3);
    expect(routeOf(site, pageOf(site, tiny('/b')), 'crawler')).toEqual([]);
  });
  it('ends the way to the index where the page is stopped', () => {
    const { steps } = open('/shut');
    expect(steps.map(({ state }) => state)).toEqual(['passed', 'stopped', 'open']);
    expect(steps[1]).toMatchObject({ text: 'robots.txt closes it', evidence: 'Disallow: /shut (line 3)' });
  });
  it('goes through to the end for a page that may be indexed, with the line of the sitemap', () => {
    const { steps, route } = open('/lost');
    expect(route).toEqual([]);
    expect(steps[0].evidence).toBe(`${tiny('/sitemap.xml')}, line 3`);
    expect(steps[steps.length - 1]).toMatchObject({ text: 'May be indexed', state: 'passed' });
  });
});

describe('the answer of Flow', () => {
  const site = tinySite({
    '/': { links: ['/a', '/b', '/gone'] },
    '/a': { links: ['/'] },
    '/b': { links: ['/'] },
    '/gone': { status: 404, html: false },
  });
  const settings = settingsSchema.parse({ start: tiny('/') });
  const report = (of: View) => reportOf(of, settings).report;
  it('tells who holds half of the share, and selects them', () => {
    const pieces = flowAnswer(site, report(site));
    expect(words(pieces)).toMatch(
      /^Half of the share is held by 1 of 3 indexable pages\. \d+% of all share ends where nothing can be indexed/,
    );
    expect(countBits(masked(site, pieces[1].select!))).toBe(1);
  });
  it('selects as many pages as a point of the curve says', () => {
    const curve = shareCurve(site);
    expect(curve.points.map(({ rank }) => rank)).toEqual([1, 2, 3]);
    expect(curve.points[2].part).toBeCloseTo(1, 12);
    expect(countBits(masked(site, richAs(curve.points[0].share)))).toBe(1);
    expect(countBits(masked(site, richAs(curve.points[2].share)))).toBe(3);
  });
  it('says so when there is nothing to follow', () => {
    const alone = tinySite({ '/': {} });
    expect(words(flowAnswer(alone, report(alone)))).toMatch(/^No indexable page has links/);
  });
});

describe('the pictures of Reach', () => {
  const site = tinySite(
    {
      '/': { links: ['/hub', '/kept'] },
      '/hub': { links: ['/a', '/b'] },
      '/a': {},
      '/b': {},
      '/kept': { links: ['/held'], pageNofollow: true },
      '/held': {},
      '/isle/1': { links: ['/isle/2'] },
      '/isle/2': { links: ['/isle/1'] },
      '/lost': {},
    },
    ['/lost', '/isle/1'],
  );
  const paths = (addresses: string[]) => addresses.map((address) => new URL(address).pathname);
  it('know how what has no route is known of', () => {
    const found = noRoute(site);
    expect([found.orphans, found.islandPages]).toEqual([1, 2]);
    expect(found.bySource.find(({ source }) => source === 'sitemap')).toEqual({
      source: 'sitemap',
      orphans: 1,
      islandPages: 1,
      indexable: 2,
    });
    expect(found.islands).toHaveLength(1);
    expect(found.islands[0]).toMatchObject({ pages: 2, indexable: 2, example: tiny('/isle/1') });
  });
  it('name the gates that most pages hang on', () =>
    expect(topGates(site).map(({ address, gateFor }) => [paths([address])[0], gateFor])).toEqual([
      ['/hub', 2],
      ['/kept', 1],
    ]));
  it('tell what a search crawler does not reach, and why', () => {
    const difference = readerDifference(site);
    expect(difference).toMatchObject({
      pages: 1,
      indexable: 1,
      byCause: [{ cause: 'nofollow', pages: 1, indexable: 1 }],
    });
    expect(words(reachAnswer(site, near, 'crawler'))).toContain('for a search crawler');
    expect(depthBars(site, masked(site, ''), 'crawler').map(({ pages }) => pages)).toEqual([1, 2, 2, 4]);
  });
});

it('counts hosts, and what was not crawled by its reason', () => {
  const site = tinySite({
    '/': { links: ['/a'] },
    '/a': { unvisitedReason: 'limit', status: null, html: false },
    'http://tiny.example/b': {},
  });
  expect(originCounts(site)).toEqual([
    { origin: 'https://tiny.example', pages: 2, indexable: 1 },
    { origin: 'http://tiny.example', pages: 1, indexable: 1 },
  ]);
  expect(notCrawled(site)).toEqual([{ reason: expect.stringContaining('limit') as string, pages: 1 }]);
});
