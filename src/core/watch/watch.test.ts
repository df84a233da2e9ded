import { describe, expect, it } from 'vitest';
import { nothingFound } from '../snapshot';
import { closedSite, outcomesOf } from '.';
import type { Example } from '.';

const page = (given: Partial<Example>): Example => ({
  ...nothingFound,
  address: 'https://a.example/x',
  fetchedAt: new Date(0),
  ...given,
});
const html = { status: 200, html: true };
function warning(...pages: Partial<Example>[]) {
  const all = pages.map(page);
  const tallies = new Map<string, number>();
  for (const kind of all.flatMap(outcomesOf)) tallies.set(kind, (tallies.get(kind) ?? 0) + 1);
  return closedSite(tallies, all.length, all);
}
const times = (n: number, given: Partial<Example>) => Array.from({ length: n }, () => given);

describe('a site that is closed to its crawl', () => {
  it('by robots.txt, with file, line and rule', () =>
    expect(warning(html, ...times(6, { blockedBy: 'Disallow: / (line 2)' }))).toBe(
      'robots.txt closes 6 of the 7 addresses met so far. https://a.example/robots.txt says: Disallow: / (line 2). Have the rule changed, or look past robots rules.',
    ));
  it('by noindex everywhere, with the line', () =>
    expect(warning(...times(6, { ...html, noindex: true, directives: 'meta robots: noindex (line 4)' }))).toMatch(
      /^Every page read so far says noindex.*https:\/\/a\.example\/x says: meta robots: noindex \(line 4\)\.$/,
    ));
  it('by a login', () =>
    expect(warning(html, ...times(6, { status: 302, redirectTo: 'https://a.example/account/sign-in?next=x' }))).toMatch(
      /redirects to a login, https:\/\/a\.example\/account\/sign-in/,
    ));
  it.each([
    [401, /user and password/],
    [403, /refuse this crawler/],
    [429, /fewer requests/],
  ])('by %i', (status, remedy) => expect(warning(html, ...times(9, { status }))).toMatch(remedy));
});

describe('a site that is open', () => {
  it('is not warned of while little is known', () =>
    expect(warning(...times(4, { ...html, noindex: true }))).toBeNull());
  it('may close some of its pages', () => {
    expect(warning(...times(6, html), ...times(4, { blockedBy: 'Disallow: /x (line 3)' }))).toBeNull();
    expect(warning(...times(6, html), ...times(4, { ...html, noindex: true }))).toBeNull();
    expect(warning(...times(8, { status: 302, redirectTo: 'https://a.example/catalogue' }))).toBeNull();
  });
});
