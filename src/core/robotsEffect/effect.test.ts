import { describe, expect, it } from 'vitest';
import { analyse } from '../analysis';
import { addressAt } from '../snapshot';
import { tiny, tinyBase, tinySettings } from '../testing/tinySite';
import type { TinyPage } from '../testing/tinySite';
import { compareJudged, decidingLines, pagesOfOrigin, robotsEffect } from '.';

const origin = 'https://tiny.example';
const site = (pages: Record<string, TinyPage>, body = '', listed: string[] = []) =>
  analyse(
    tinyBase(pages, listed.map(tiny), {
      files: { robots: [{ origin, status: 200, fault: null, body, answer: null }], sitemaps: [] },
    }),
    tinySettings,
  );
const closing = (path: string) => `User-agent: *\nDisallow: ${path}`;
const effect = (snapshot: ReturnType<typeof site>, text: string, token = 'any') =>
  robotsEffect(snapshot, { origin, text, token }, tinySettings);

describe('what another robots.txt would do', () => {
  const museum = site({
    '/': { links: ['/shop', '/visit'] },
    '/shop': { links: ['/shop/a', '/basket'] },
    '/shop/a': { links: ['/'] },
    '/basket': { noindex: true },
    '/visit': { links: ['/'] },
  });
  it('closes pages, and takes the routes of those behind them', () => {
    const { counts, closed, routesLost } = effect(museum, closing('/shop$'));
    expect(closed.map(({ page, line }) => [addressAt(museum, page), line])).toEqual([[tiny('/shop'), 2]]);
    expect(routesLost.map((page) => addressAt(museum, page)).sort()).toEqual([tiny('/basket'), tiny('/shop/a')]);
    expect(counts).toMatchObject({ closed: 1, opened: 0, indexable_lost: 1, indexable_won: 0, routes_lost: 2 });
    expect(counts.share_lost).toBeGreaterThan(0);
  });
  it('that says what holds now changes nothing', () => {
    const none = { closed: 0, opened: 0, indexable_lost: 0, indexable_won: 0, routes_lost: 0, listed_closed: 0 };
    expect(effect(museum, 'User-agent: *\nAllow: /').counts).toEqual({ ...none, share_lost: 0 });
  });
  it('is asked for one crawler', () => {
    const text = `User-agent: one\nDisallow: /visit`;
    expect(effect(museum, text, 'one').counts.closed).toBe(1);
    expect(effect(museum, text, 'two').counts.closed).toBe(0);
  });
  it('says how a page that was never fetched cannot be told', () => {
    const rule = { line: 2, directive: 'disallow', path: '/shop', group: '*' } as const;
    const closed = site(
      { '/': { links: ['/shop'] }, '/shop': { robotsRule: rule, status: null, html: false } },
      closing('/shop'),
    );
    expect(effect(closed, '').counts).toMatchObject({ opened: 1, indexable_won: 0 });
  });
  it('counts what it wins of pages that were fetched all the same', () => {
    const rule = { line: 2, directive: 'disallow', path: '/shop', group: '*' } as const;
    const read = site({ '/': { links: ['/shop'] }, '/shop': { robotsRule: rule } }, closing('/shop'));
    expect(effect(read, '').counts).toMatchObject({ opened: 1, indexable_won: 1 });
  });
});

describe('judging addresses', () => {
  const snapshot = site({ '/': {}, '/a': {}, '/b': {} });
  const addresses = Array.from(pagesOfOrigin(snapshot, origin), (page) => addressAt(snapshot, page));
  const linesBy = (text: string | null) => decidingLines(addresses, text, 'any');
  it('gives the line that decides, below zero where it closes', () =>
    expect([...linesBy(`${closing('/a')}\nAllow: /b`)]).toEqual([0, -2, 3]));
  it('without a file opens everything', () => expect([...linesBy(null)]).toEqual([0, 0, 0]));
  it('is compared address by address', () =>
    expect(compareJudged(linesBy(closing('/a')), linesBy(closing('/b')))).toEqual({
      closed: [2],
      opened: [1],
      still: 0,
    }));
});
