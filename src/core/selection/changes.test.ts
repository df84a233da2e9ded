import { describe, expect, it } from 'vitest';
import { comparePages } from '../compare';
import { addressAt, sourcesOf } from '../snapshot';
import type { Snapshot } from '../snapshot';
import { tinySite } from '../testing/tinySite';
import { asksForEarlier, evaluateLinks, noBits, numbersOf, parseLinkSelection } from '.';
import type { Bits } from '.';
import { withComparison } from '../view';

const then = tinySite({
  '/': { links: ['/visit', '/shop', '/press'] },
  '/visit': { links: ['/', '/press'] },
  '/shop': { links: ['/'] },
  '/press': {},
});
const now = tinySite({
  '/': { links: ['/visit', '/shop', '/news'] },
  '/visit': { links: ['/'] },
  '/shop': { links: ['/', '/news'] },
  '/news': { links: ['/'] },
});
const comparison = comparePages(then, now);
const compared = withComparison(now, comparison);

const read = (text: string) => {
  const parsed = parseLinkSelection(text);
  if (!parsed.ok) throw new Error(parsed.fault.message);
  return parsed.selection;
};
const named = (site: Snapshot, links: Bits) => {
  const sources = sourcesOf(site);
  const path = (page: number) => new URL(addressAt(site, page)).pathname;
  return [...numbersOf(links)].map((link) => `${path(sources[link])} → ${path(site.links.target[link])}`);
};
const linksNow = (text: string) => named(now, evaluateLinks(compared, read(text)));
const linksThen = (text: string) =>
  named(then, evaluateLinks(then, read(text), { comparison, pagesOf: () => noBits(then.count) }));

describe('links that came and went', () => {
  it('are selected in the crawl that has them', () => {
    // The links of a page that is new itself came with it.
    expect(linksNow('added')).toEqual(['/ → /news', '/shop → /news']);
    expect(linksThen('removed')).toEqual(['/ → /press', '/visit → /press']);
    expect([linksThen('added'), linksNow('removed')]).toEqual([[], []]);
  });
  it('are joined with other tests', () => {
    expect(linksNow('added and to (url has "news")')).toEqual(['/ → /news', '/shop → /news']);
    expect(linksNow('not added and from (url has "shop")')).toEqual(['/shop → /']);
  });
  it('need an earlier crawl', () => {
    expect(asksForEarlier(read('kind = click and added'))).toBe(true);
    expect(() => evaluateLinks(now, read('added'))).toThrow('There is no earlier crawl');
  });
});
