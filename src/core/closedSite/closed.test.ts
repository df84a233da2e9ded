import { describe, expect, it } from 'vitest';
import { sentence } from '../messages';
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
  const message = closedSite(tallies, all.length, all);
  return message && sentence(message);
}
const times = (n: number, given: Partial<Example>) => Array.from({ length: n }, () => given);

describe('a site that is closed to its crawl', () => {
  it('by robots.txt, with file, line and rule', () =>
    expect(warning(html, ...times(6, { robotsRule: { line: 2, directive: 'disallow', path: '/', group: '*' } }))).toBe(
      'robots.txt closes 6 of the 7 addresses met so far. https://a.example/robots.txt says: Disallow: / (line 2). Have the rule changed, or ignore robots.txt in the settings.',
    ));
  it('by noindex everywhere, with the line', () =>
    expect(warning(...times(6, { ...html, noindex: true, pageRules: 'meta robots: noindex (line 4)' }))).toMatch(
      /^Every page read so far says noindex.*https:\/\/a\.example\/x says: meta robots: noindex \(line 4\)\.$/,
    ));
  it('by a login', () =>
    expect(warning(html, ...times(6, { status: 302, redirectTo: 'https://a.example/account/sign-in?next=x' }))).toMatch(
      /redirects to a login, https:\/\/a\.example\/account\/sign-in/,
    ));
  it.each([
    [401, /user and password/],
    [403, /refuse this crawler/],
    [429, /crawl rate/],
  ])('by %i', (status, remedy) => expect(warning(html, ...times(9, { status }))).toMatch(remedy));
  it.each(['/lessons/', '/professor/', '/authors/', '/session-notes', '/blog/', '/catalogin/'])(
    'not by a redirect to %s, whose words hold those of a login',
    (path) => expect(warning(html, ...times(6, { status: 302, redirectTo: `https://a.example${path}` }))).toBeNull(),
  );
  it.each(['/login', '/Login.aspx', '/account/sign-in/', '/sso/start', '/oauth2/authorize', '/user-login.php'])(
    'by a redirect to %s',
    (path) =>
      expect(warning(html, ...times(6, { status: 302, redirectTo: `https://a.example${path}` }))).toMatch(/login/),
  );
});

describe('a site that is open', () => {
  it('is not warned of while little is known', () =>
    expect(warning(...times(4, { ...html, noindex: true }))).toBeNull());
  it('may close some of its pages', () => {
    expect(
      warning(
        ...times(6, html),
        ...times(4, { robotsRule: { line: 3, directive: 'disallow', path: '/x', group: '*' } }),
      ),
    ).toBeNull();
    expect(warning(...times(6, html), ...times(4, { ...html, noindex: true }))).toBeNull();
    expect(warning(...times(8, { status: 302, redirectTo: 'https://a.example/catalogue' }))).toBeNull();
  });
});
