import { describe, expect, it } from 'vitest';
import { addressAt, pageOf } from '../snapshot';
import type { Snapshot } from '../snapshot';
import { tiny, tinySite } from '../testing/tinySite';
import { overView } from '../view';
import {
  answerSheetOf,
  canonicalClustersOf,
  canonicalGroupsOf,
  canonicalsOf,
  hostVariantsOf,
  hreflangSetsOf,
  isFaulty,
  otherWritings,
  pageRuleGroupsOf,
  pageRulesOf,
  variantGroupsOf,
  variantRows,
} from '.';

const path = (snapshot: Snapshot, page: number) => new URL(addressAt(snapshot, page)).pathname;
const names = (to: string) => ({ canonical: tiny(to), declared: [['canonical', tiny(to)]] as [['canonical', string]] });

describe('canonicals', () => {
  const rule = { line: 2, directive: 'disallow', path: '/shut', group: '*' } as const;
  const site = tinySite({
    '/': names('/'),
    '/print': names('/'),
    '/chain': names('/print'),
    '/ring': names('/rong'),
    '/rong': names('/ring'),
    '/moved': names('/old'),
    '/old': { status: 301, html: false, redirectTo: tiny('/') },
    '/lost': names('/gone'),
    '/gone': { status: 404, html: false },
    '/hidden': names('/quiet'),
    '/quiet': { ...names('/quiet'), noindex: true },
    '/closed': names('/shut'),
    '/shut': { robotsRule: rule, status: null, html: false },
    '/away': names('https://else.example/x'),
    '/none': {},
    '/two': { ...names('/'), headed: [['canonical', tiny('/print')]] },
  });
  const outcomeOf = (of: string) => canonicalsOf(site).find(({ page }) => path(site, page) === of)!;
  it.each([
    ['/', 'agrees', '/'],
    ['/print', 'other', '/'],
    ['/chain', 'chain', '/'],
    ['/ring', 'loop', '/ring'],
    ['/moved', 'to_redirect', '/'],
    ['/lost', 'to_broken', '/gone'],
    ['/hidden', 'to_noindex', '/quiet'],
    ['/closed', 'to_blocked', '/shut'],
    ['/away', 'outside', '/x'],
    ['/none', 'missing', '/none'],
  ])('of %s: %s, ending at %s', (of, outcome, end) => {
    const found = outcomeOf(of);
    expect([found.outcome, new URL(found.end).pathname]).toEqual([outcome, end]);
  });
  it('tell a header that contradicts the tag', () =>
    expect(outcomeOf('/two').flags).toEqual(['several', 'header_against_tag']));
  it('form clusters by where they end, those with most that is odd first', () => {
    const clusters = canonicalClustersOf(site).map(({ end, members, odd }) => [
      new URL(end).pathname,
      members.length,
      odd,
    ]);
    expect(clusters[0]).toEqual(['/', 4, 3]);
    expect(clusters.reduce((sum, [, size]) => sum + Number(size), 0)).toBe(10);
  });
  it('stand in groups by what is wrong, and where', () =>
    expect(
      canonicalGroupsOf(site)
        .find(({ kind }) => kind === 'missing')
        ?.pages.map((page) => path(site, page)),
    ).toEqual(['/none']));
  it('are one where nearly all pages have them', () => {
    const bare = (above: string) => ({ placed: [['/', above] as [string, string]] });
    const blog = tinySite({
      '/': {},
      '/a': bare('body>main'),
      '/b': bare('body>main>article.post'),
      '/c': bare('body>main'),
    });
    expect(canonicalGroupsOf(blog)).toMatchObject([{ kind: 'missing', template: null, of: 4, pages: [0, 1, 2, 3] }]);
  });
  it('are told apart from those of other templates, with how many pages a template has', () => {
    const product = {
      placed: [
        ['/', 'body>header.masthead>nav'] as [string, string],
        ['/', 'body>main>article.product'] as [string, string],
      ],
    };
    const shop = tinySite({
      '/': { canonical: '/' },
      '/shop/mug': product,
      '/shop/cap': product,
      '/gifts/bell': { ...product, canonical: '/gifts/bell' },
      '/news/late': {},
    });
    const missing = canonicalGroupsOf(shop).filter(({ kind }) => kind === 'missing');
    expect(missing.map(({ template, pages, of }) => [template, pages.map((page) => path(shop, page)), of])).toEqual([
      ['article.product, header.masthead, main, nav', ['/shop/cap', '/shop/mug'], 3],
      ['plain', ['/news/late'], 2],
    ]);
  });
});

describe('rules of pages', () => {
  const site = tinySite({
    '/': { pageRules: 'meta robots: index, follow (line 4); X-Robots-Tag: noindex' },
    '/a': { pageRules: 'meta searchbot: max-snippet: 50 (line 9)' },
    '/b': {},
  });
  it('are told value by value, with what is outweighed', () =>
    expect(
      pageRulesOf(site).map(({ page, agent, value, source, line, isOutweighed }) => [
        path(site, page),
        agent,
        value,
        source,
        line,
        isOutweighed,
      ]),
    ).toEqual([
      ['/', '', 'index', 'meta', 4, true],
      ['/', '', 'follow', 'meta', 4, false],
      ['/', '', 'noindex', 'header', null, false],
      ['/a', 'searchbot', 'max-snippet: 50', 'meta', 9, false],
    ]));
  it('come from a template when nearly all pages of a section have them', () => {
    const noindex = { pageRules: 'meta robots: noindex (line 4)', noindex: true };
    const shop = Object.fromEntries(Array.from({ length: 9 }, (_, i) => [`/shop/${i}`, noindex]));
    const others = Object.fromEntries(Array.from({ length: 9 }, (_, i) => [`/news/${i}`, {}]));
    expect(pageRuleGroupsOf(tinySite({ '/': {}, ...shop, ...others }))).toEqual([
      { agent: '', value: 'noindex', source: 'meta', pages: 9, outweighed: 0, scope: 'section', only: 'shop' },
    ]);
  });
  it('come from a template wherever its pages are', () => {
    const ticket = {
      placed: [['/', 'body>main>form.ticket'] as [string, string]],
      pageRules: 'meta robots: noindex (line 4)',
    };
    const tickets = Object.fromEntries(
      ['/visit/1', '/visit/2', '/events/1', '/events/2', '/shop/1'].map((path) => [path, ticket]),
    );
    const others = Object.fromEntries(['/visit/', '/events/', '/shop/', '/news/'].map((path) => [path, {}]));
    expect(pageRuleGroupsOf(tinySite({ '/': {}, ...tickets, ...others }))).toMatchObject([
      { value: 'noindex', pages: 5, scope: 'template', only: 'form.ticket, main' },
    ]);
  });
});

describe('variants of an address', () => {
  const site = tinySite({
    '/': {},
    '/index.html': names('/'),
    '/a': {},
    '/a/': {},
    '/B': { status: 301, html: false, redirectTo: tiny('/b') },
    '/b': {},
    'http://tiny.example/b': { status: 301, html: false, redirectTo: tiny('/b') },
  });
  const found = variantGroupsOf(site).map((group) => ({
    ...group,
    pages: group.pages.map((page) => addressAt(site, page)),
  }));
  it('form groups, those that settle on no address first', () =>
    expect(found.map(({ kinds, settles }) => [kinds, settles])).toEqual([
      [['slash'], null],
      [['scheme', 'case'], tiny('/b')],
      [['index_file'], tiny('/')],
    ]));
  it('say what each answers', () =>
    expect(variantRows(site, variantGroupsOf(site)[1]).map(({ verdict, leadsTo }) => [verdict, leadsTo])).toEqual([
      ['redirect', tiny('/b')],
      ['redirect', tiny('/b')],
      ['indexable', tiny('/b')],
    ]));
  it('of a host with a port, or an IP address, are those that can be', () => {
    expect(hostVariantsOf(site, 'http://127.0.0.1:8080/').map(({ origin }) => origin)).toEqual([
      'http://127.0.0.1:8080',
    ]);
    expect(otherWritings('http://127.0.0.1:8080/a').map(({ kind }) => kind)).toEqual(['slash', 'case', 'parameters']);
    expect(otherWritings('https://www.tiny.example/shop/')).toEqual([
      { kind: 'scheme', address: 'http://www.tiny.example/shop/' },
      { kind: 'www', address: 'https://tiny.example/shop/' },
      { kind: 'slash', address: 'https://www.tiny.example/shop' },
      { kind: 'case', address: 'https://www.tiny.example/Shop/' },
      { kind: 'index_file', address: 'https://www.tiny.example/shop/index.html' },
      { kind: 'parameters', address: 'https://www.tiny.example/shop/?edgemap=1' },
    ]);
  });
  it('of the host stand side by side', () => {
    const rows = hostVariantsOf(site, tiny('/')).map(({ origin, isStart, pages, redirecting }) => [
      origin,
      isStart,
      pages,
      redirecting,
    ]);
    expect(rows).toContainEqual(['https://tiny.example', true, 6, 0]);
    expect(rows).toContainEqual(['http://tiny.example', false, 1, 1]);
    expect(rows).toHaveLength(4);
  });
});

describe('editions in other languages', () => {
  const edition = (...targets: string[]) => ({
    declared: targets.map((to) => ['hreflang', tiny(to)] as ['hreflang', string]),
  });
  const site = tinySite({
    '/en': edition('/en', '/fr'),
    '/fr': edition('/en', '/fr'),
    '/de': edition('/en'),
    '/x': {},
  });
  it('form sets, with what does not agree', () => {
    const [set, ...rest] = hreflangSetsOf(site);
    expect(rest).toEqual([]);
    expect(set.pages.map((page) => path(site, page))).toEqual(['/de', '/en', '/fr']);
    const faults = set.links.filter(({ page }) => path(site, page) === '/de').flatMap((link) => link.faults);
    expect(faults).toContain('no_return');
    expect(set.pageFaults.get(set.pages[0])).toContain('no_self');
    expect(isFaulty(set)).toBe(true);
  });
  it('are read from sitemaps too, and told where these name others', () => {
    const page = (at: string) => pageOf(site, tiny(at));
    const named = (at: string, language: string, to: string) => ({ page: page(at), language, address: tiny(to) });
    const alternates = [named('/en', 'en', '/en'), named('/en', 'fr', '/x'), named('/x', 'frr-x', '/outside')];
    const [set] = hreflangSetsOf(overView(site, { alternates: () => alternates }));
    expect(set.pages.map((one) => path(site, one))).toEqual(['/de', '/en', '/fr', '/x']);
    expect(set.pageFaults.get(page('/en'))).toContain('sitemap_against_page');
    expect(set.pageFaults.get(page('/x'))).not.toContain('sitemap_against_page');
    const listed = set.links.filter(({ source }) => source === 'sitemap');
    expect(listed.map(({ faults }) => faults)).toEqual([[], ['no_return'], ['bad_code']]);
  });
});

describe('the answer sheet', () => {
  const site = tinySite(
    {
      '/': { ...names('/'), links: ['/a', '/old'] },
      '/a': { links: ['/'] },
      '/old': { status: 302, html: false, redirectTo: tiny('/a') },
      '/lost': names('/lost'),
    },
    ['/', '/a'].map(tiny),
  );
  const answers = new Map(answerSheetOf(site, tiny('/')).map((row) => [row.id, row]));
  it.each([
    ['home_one_address', 'yes', 0],
    ['one_case', 'unknown', 0],
    ['canonical_everywhere', 'partly', 1],
    ['permanent_redirects', 'no', 1],
    ['all_reached', 'partly', 1],
    ['sitemap_clean', 'yes', 0],
    ['secure', 'yes', 0],
  ])('answers %s with %s', (id, answer, count) => {
    expect([answers.get(id)?.answer, answers.get(id)?.count]).toEqual([answer, count]);
  });
  it('gives an example and the list of what speaks against a yes', () =>
    expect(answers.get('all_reached')).toMatchObject({
      example: tiny('/lost'),
      select: '(indexable) and (not reached)',
    }));
});
