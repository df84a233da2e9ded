import { describe, expect, it } from 'vitest';
import { parseSelection } from '../selection';
import { tiny, tinySite } from '../testing/tinySite';
import { rulesAnswer, verdictEvidence } from './rules';

const words = (pieces: { text: string }[]) => pieces.map(({ text }) => text).join('');
const closedBy = (line: number, path: string) =>
  ({ robotsRule: { line, directive: 'disallow', path, group: '*' }, status: null, html: false }) as const;
const museum = tinySite({
  '/': { links: ['/visit', '/shop/a'] },
  '/visit': {},
  '/shop/a': closedBy(2, '/shop'),
  '/shop/b': closedBy(2, '/shop'),
  '/basket': closedBy(3, '/basket'),
  '/print': { canonical: tiny('/visit') },
  '/gone': { status: 404, html: false },
  '/lost': { status: 410, html: false },
});

describe('the answer of Rules', () => {
  it('says how much may be indexed, and what speaks against the rest', () =>
    expect(words(rulesAnswer(museum, 'any'))).toBe(
      '2 of 8 known addresses may be indexed. 3 are closed by robots.txt and 1 names another page as canonical.',
    ));
  it('says first what closes the whole site', () => {
    const body = 'User-agent: *\nDisallow: /';
    const file = { origin: 'https://tiny.example', status: 200, fault: null, body, answer: null };
    const site = tinySite({ '/': {} }, [], { files: { robots: [file], sitemaps: [] } });
    expect(words(rulesAnswer(site, 'any'))).toMatch(
      /^robots\.txt closes the whole site: line 2, Disallow: \/\. 1 of 1/,
    );
  });
  it('says that noindex is on nearly all pages, and nothing of it when it is on some', () => {
    const pages = (hidden: number) =>
      Object.fromEntries(Array.from({ length: 10 }, (_, i) => [i ? `/${i}` : '/', { noindex: i < hidden }]));
    expect(words(rulesAnswer(tinySite(pages(9)), 'any'))).toMatch(/^Noindex is on 9 of 10 pages/);
    expect(words(rulesAnswer(tinySite(pages(8)), 'any'))).toMatch(/^2 of 10 known addresses/);
  });
});

describe('the evidence for verdicts', () => {
  it('is told by rule and line, the most frequent first, the best verdict before the others', () => {
    const rows = verdictEvidence(museum);
    expect(rows.map(({ verdict, pages }) => [verdict, pages])).toEqual([
      ['indexable', 2],
      ['canonicalised', 1],
      ['broken', 2],
      ['blocked', 3],
    ]);
    const told = rows.find(({ verdict }) => verdict === 'blocked')!.evidence;
    expect(told.map(({ text, line, pages }) => [text, line, pages])).toEqual([
      ['Disallow: /shop', 2, 2],
      ['Disallow: /basket', 3, 1],
    ]);
  });
  it('leads to its pages', () => {
    for (const { select } of verdictEvidence(museum).flatMap(({ evidence }) => evidence))
      expect([select, parseSelection(select).ok]).toEqual([select, true]);
  });
});
