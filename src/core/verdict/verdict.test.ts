import { describe, expect, it } from 'vitest';
import { followRedirects, judge } from '.';
import type { VerdictInput } from '.';

const fine: VerdictInput = {
  address: 'https://museum.example/',
  unvisited: null,
  blockedBy: null,
  error: null,
  status: 200,
  redirectTo: null,
  tries: 1,
  html: true,
  contentType: 'text/html',
  noindex: false,
  robots: null,
  canonical: null,
};
const elsewhere = 'https://museum.example/other';

describe('verdict', () => {
  it.each<[string, Partial<VerdictInput>]>([
    ['indexable', {}],
    ['indexable', { canonical: fine.address }],
    ['canonicalised', { canonical: elsewhere }],
    ['noindex', { noindex: true, canonical: elsewhere }],
    ['not_html', { html: false, contentType: 'application/pdf', noindex: true }],
    ['not_html', { status: 204 }],
    ['redirect', { redirectTo: elsewhere, noindex: true }],
    ['redirect', { status: 301, html: false }],
    ['broken', { status: 410, html: false }],
    ['failing', { status: 503, html: false }],
    ['unanswered', { error: 'dns', status: null, html: false }],
    ['blocked', { blockedBy: 'Disallow: / (line 2)', status: 404, html: false }],
    ['unvisited', { unvisited: 'limit', blockedBy: 'Disallow: / (line 2)', status: null, html: false }],
  ])('%s is the first that applies to %o', (verdict, facts) =>
    expect(judge({ ...fine, ...facts }).verdict).toBe(verdict),
  );

  it('gives the evidence', () => {
    expect(judge({ ...fine, blockedBy: 'Disallow: /shop (line 4)' }).reason).toBe('Disallow: /shop (line 4)');
    expect(judge({ ...fine, status: 404 }).reason).toMatch(/404/);
    expect(judge({ ...fine, unvisited: 'depth', status: null }).reason).toMatch(/deeper/);
  });
});

describe('chains of redirects', () => {
  const next = (chain: number[]) => (at: number) => chain[at] ?? -1;
  it('ends where nothing redirects', () =>
    expect(followRedirects(0, next([1, 2, -1]))).toEqual({ final: 2, hops: 2, loop: false }));
  it('knows a loop', () => expect(followRedirects(0, next([1, 2, 1]))).toMatchObject({ final: -1, loop: true }));
  it('knows a page that redirects to itself', () =>
    expect(followRedirects(0, next([0]))).toMatchObject({ loop: true, hops: 1 }));
});
