import { describe, expect, it } from 'vitest';
import { sentence } from '../messages';
import { pageOf } from '../snapshot';
import { tiny, tinySite } from '../testing/tinySite';
import { followRedirects, verdictOf, verdictReason } from '.';
import type { VerdictFacts } from '.';

const fine: VerdictFacts = {
  unvisited: false,
  blocked: false,
  unanswered: false,
  status: 200,
  redirects: false,
  html: true,
  noindex: false,
  canonicalElsewhere: false,
};

describe('verdict', () => {
  it.each<[string, Partial<VerdictFacts>]>([
    ['indexable', {}],
    ['canonicalised', { canonicalElsewhere: true }],
    ['noindex', { noindex: true, canonicalElsewhere: true }],
    ['not_html', { html: false, noindex: true }],
    ['not_html', { status: 204 }],
    ['redirect', { redirects: true, noindex: true }],
    ['redirect', { status: 301, html: false }],
    ['broken', { status: 410, html: false }],
    ['failing', { status: 503, html: false }],
    ['unanswered', { unanswered: true, status: null, html: false }],
    ['unanswered', { unanswered: true }],
    ['blocked', { blocked: true, status: 404, html: false }],
    ['unvisited', { unvisited: true, blocked: true, status: null, html: false }],
  ])('%s is the first that applies to %o', (verdict, facts) => expect(verdictOf({ ...fine, ...facts })).toBe(verdict));
});

describe('the reason', () => {
  const rule = { line: 4, directive: 'disallow', path: '/shop', group: '*' } as const;
  const redirect = { status: 301, html: false };
  const site = tinySite({
    '/': {},
    '/shop': { robotsRule: rule, status: null, html: false },
    '/shut': { robotsRule: { ...rule, line: 0, directive: 'unreadable' }, status: null, html: false },
    '/gone': { status: 404, html: false, tries: 1, fetchedAt: new Date(0) },
    '/down': { status: 503, html: false, tries: 3, fetchedAt: new Date(0) },
    '/mute': { error: 'timeout', status: null, html: false, tries: 3, fetchedAt: new Date(0) },
    '/deep': { unvisitedReason: 'depth', status: null, html: false },
    '/old': { ...redirect, redirectTo: '/older' },
    '/older': { ...redirect, redirectTo: '/' },
    '/self': { ...redirect, redirectTo: '/self' },
    '/spin': { ...redirect, redirectTo: '/spun' },
    '/spun': { ...redirect, redirectTo: '/spin' },
    '/away': { ...redirect, redirectTo: 'https://other.example/x' },
    '/bare': redirect,
  });
  const reason = (path: string) => verdictReason(site, pageOf(site, tiny(path)));
  it('is a code with parameters', () => {
    expect(reason('/shop')).toEqual({ code: 'blocked', rule });
    expect(reason('/deep')).toEqual({ code: 'unvisited', reason: 'depth' });
    expect(reason('/down')).toEqual({ code: 'status', status: 503, tries: 3 });
    expect(reason('/')).toEqual({ code: 'nothing' });
  });
  it.each([
    ['/shop', 'Disallow: /shop (line 4)'],
    ['/shut', 'robots.txt could not be read, which closes the whole host.'],
    ['/gone', 'The server answered 404.'],
    ['/down', 'The server answered 503, after 3 requests.'],
    ['/mute', 'No answer came in time, after 3 requests.'],
    ['/deep', 'It is deeper than the depth limit of the crawl.'],
    ['/old', `${tiny('/')} after 2 redirects`],
    ['/self', 'A loop of 1 redirect.'],
    ['/spin', 'A loop of 2 redirects.'],
    ['/away', 'https://other.example/x'],
    ['/bare', 'The server answered 301 and named no address that can be followed.'],
  ])('of %s reads “%s”', (path, text) => expect(sentence(reason(path))).toBe(text));
});

describe('chains of redirects', () => {
  const next = (chain: number[]) => (at: number) => chain[at] ?? -1;
  it('ends where nothing redirects', () =>
    expect(followRedirects(0, next([1, 2, -1]))).toEqual({ final: 2, hops: 2, loop: false }));
  it('ends at the last known page when it leads on to none', () =>
    expect(followRedirects(0, next([1, -1]))).toEqual({ final: 1, hops: 1, loop: false }));
  it('knows a loop', () => expect(followRedirects(0, next([1, 2, 1]))).toMatchObject({ final: -1, loop: true }));
  it('knows a page that redirects to itself', () =>
    expect(followRedirects(0, next([0]))).toMatchObject({ loop: true, hops: 1 }));
});
