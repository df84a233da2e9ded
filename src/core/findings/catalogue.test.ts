/** Every finding on a small site that has it, and on the same site without the fault. */
import { describe, expect, it } from 'vitest';
import type { Message } from '../messages';
import { patternMatcher } from '../selection/pattern';
import { settingsSchema } from '../settings';
import type { SiteFiles } from '../snapshot';
import { TINY_START, tiny, tinySite } from '../testing/tinySite';
import type { TinyPage } from '../testing/tinySite';
import { findings, findingsOf } from '.';

const settings = settingsSchema.parse({ start: TINY_START });
const { thresholds } = settings;

interface Case {
  pages: Record<string, TinyPage>;
  listed?: string[];
  files?: Partial<SiteFiles>;
  /** Pages, occurrences, edits. */
  found: [pages: number, occurrences: number, edits: number];
}

const links = (n: number, path = '/p') => Array.from({ length: n }, (_, i) => `${path}${i}`);
const pagesAt = (paths: readonly string[], page: TinyPage = {}) =>
  Object.fromEntries(paths.map((path) => [path, page]));
const gone: TinyPage = { status: 404, html: false, title: null };
const moved = (to: string): TinyPage => ({ status: 301, html: false, redirectTo: to });
const robots = (body: string, status = 200, fault: Message | null = null) => ({
  robots: [{ origin: 'https://tiny.example', status, fault, body, answer: null }],
});
const sitemap = (fault: Message | null, skipped = 0) => ({
  sitemaps: [
    {
      address: tiny('/sitemap.xml'),
      entries: 0,
      skipped,
      isFeed: false,
      fault,
      faultLine: fault ? 7 : null,
      index: null,
      answer: null,
    },
  ],
});

const cases: Record<string, Case> = {
  indexable_orphan: { pages: { '/': {}, '/lost': {} }, listed: ['/lost'], found: [1, 1, 1] },
  indexable_island: { pages: { '/': {}, '/a': { links: ['/b'] }, '/b': { links: ['/a'] } }, found: [2, 2, 1] },
  deep_pages: {
    pages: {
      '/': { links: ['/1'] },
      '/1': { links: ['/2'] },
      '/2': { links: ['/3'] },
      '/3': { links: ['/4'] },
      '/4': {},
    },
    found: [1, 1, 1],
  },
  only_paging: {
    pages: {
      '/': { title: 'Stories', worded: [['/?page=2', '2']] },
      '/?page=2': { title: 'Stories', links: ['/a'] },
      '/a': {},
    },
    found: [1, 1, 1],
  },
  kept_from_crawlers: {
    pages: { '/': { links: ['/a'], pageNofollow: true }, '/a': { links: ['/b'] }, '/b': {} },
    found: [2, 2, 1],
  },
  by_redirect_only: {
    pages: { '/': { links: ['/old'] }, '/old': moved('/new'), '/new': {} },
    found: [1, 1, 1],
  },
  gates: {
    pages: { '/': { links: ['/list'] }, '/list': { links: links(10) }, ...pagesAt(links(10)) },
    found: [1, 1, 1],
  },
  dead_ends: { pages: { '/': { links: ['/a'] }, '/a': {} }, found: [1, 1, 1] },
  traps: {
    pages: { '/': { links: ['/cal/1'] }, '/cal/1': { unvisitedReason: 'trap', status: null, html: false } },
    found: [1, 1, 1],
  },
  crumbs_astray: {
    pages: { '/': { links: ['/a'] }, '/a': { breadcrumb: [{ name: 'Visit', address: null }] } },
    found: [1, 1, 1],
  },
  starving: {
    pages: {
      '/': { links: ['/list'] },
      '/list': { links: ['/', ...links(10, '/p/')] },
      // They link to each other, and not to the tenth.
      ...pagesAt(links(9, '/p/'), { links: ['/', ...links(9, '/p/')] }),
      '/p/9': { links: ['/'] },
    },
    found: [1, 1, 1],
  },
  one_way_in: { pages: { '/': { links: ['/a'] }, '/a': { links: ['/'] } }, found: [1, 1, 1] },
  crowded: { pages: { '/': { links: links(151) }, ...pagesAt(links(151)) }, found: [1, 1, 1] },
  links_to_broken: {
    pages: { '/': { links: ['/a', '/gone'] }, '/a': { links: ['/gone'] }, '/gone': gone },
    found: [2, 2, 1],
  },
  links_to_redirects: {
    pages: { '/': { links: ['/old', '/old'] }, '/old': moved('/new'), '/new': {} },
    found: [1, 2, 1],
  },
  links_to_canonicalised: {
    pages: { '/': { links: ['/b'] }, '/b': { canonical: '/c', declared: [['canonical', '/c']] }, '/c': {} },
    found: [1, 1, 1],
  },
  links_to_noindex: { pages: { '/': { links: ['/a'] }, '/a': { noindex: true } }, found: [1, 1, 1] },
  links_to_blocked: {
    pages: {
      '/': { links: ['/a'] },
      '/a': { robotsRule: { line: 2, directive: 'disallow', path: '/a', group: '*' }, status: null, html: false },
    },
    found: [1, 1, 1],
  },
  nofollow_inside: { pages: { '/': { links: ['/a', '/'], pageNofollow: true }, '/a': {} }, found: [1, 1, 1] },
  insecure_links: { pages: { '/': { links: ['http://tiny.example/a'] } }, found: [1, 1, 1] },
  anchor_empty: { pages: { '/': { worded: [['/a', '']] }, '/a': {} }, found: [1, 1, 1] },
  anchor_generic: { pages: { '/': { worded: [['/a', 'Read more …']] }, '/a': {} }, found: [1, 1, 1] },
  anchor_address: { pages: { '/': { worded: [['/a', 'https://tiny.example/a']] }, '/a': {} }, found: [1, 1, 1] },
  anchor_overlong: { pages: { '/': { worded: [['/a', 'a '.repeat(60)]] }, '/a': {} }, found: [1, 1, 1] },
  anchor_off_topic: {
    pages: { '/': { worded: [['/a', 'Buses of the valley']] }, '/a': { title: 'Night trams' } },
    found: [1, 1, 1],
  },
  anchor_conflict: {
    pages: {
      '/': {
        worded: [
          ['/a', 'Timetable'],
          ['/b', 'timetable'],
        ],
      },
      '/a': {},
      '/b': {},
    },
    found: [1, 2, 1],
  },
  anchor_split: {
    pages: {
      '/': {
        worded: [
          ...Array.from({ length: 3 }, (): [string, string] => ['/a', 'Timetable']),
          ...Array.from({ length: 3 }, (): [string, string] => ['/a', 'Lost property']),
        ],
      },
      '/a': {},
    },
    found: [1, 3, 1],
  },
  nofollow_mix: {
    pages: { '/': { links: ['/a', '/b'] }, '/a': { nofollow: ['/b'] }, '/b': {} },
    found: [1, 1, 1],
  },
  blocked_noindexed: {
    pages: { '/': {}, '/a': { robotsRule: { line: 2, directive: 'disallow', path: '/a', group: '*' }, noindex: true } },
    found: [1, 1, 1],
  },
  canonical_not_indexable: {
    pages: { '/': { canonical: '/gone' }, '/a': { canonical: '/gone' }, '/gone': gone },
    found: [2, 2, 1],
  },
  canonical_chain: { pages: { '/': { canonical: '/b' }, '/b': { canonical: '/c' }, '/c': {} }, found: [1, 1, 1] },
  canonical_loop: { pages: { '/': { canonical: '/b' }, '/b': { canonical: '/' } }, found: [2, 2, 2] },
  several_canonicals: {
    pages: {
      '/': {
        canonical: '/',
        declared: [
          ['canonical', '/'],
          ['canonical', '/b'],
        ],
      },
      '/b': {},
    },
    found: [1, 1, 1],
  },
  canonical_outside: { pages: { '/': { canonical: 'https://other.example/' } }, found: [1, 1, 1] },
  noindex_canonical: {
    pages: { '/': { noindex: true, canonical: '/b', robots: 'noindex' }, '/b': {} },
    found: [1, 1, 1],
  },
  redirect_chain: { pages: { '/': {}, '/a': moved('/b'), '/b': moved('/c'), '/c': {} }, found: [1, 1, 1] },
  redirect_loop: { pages: { '/': {}, '/a': moved('/b'), '/b': moved('/a') }, found: [2, 2, 2] },
  hreflang_no_return: { pages: { '/': { declared: [['hreflang', '/fr/']] }, '/fr/': {} }, found: [1, 1, 1] },
  hreflang_not_indexable: { pages: { '/': { declared: [['hreflang', '/fr/']] }, '/fr/': gone }, found: [1, 1, 1] },
  hreflang_bad_code: { pages: { '/': { declared: [['hreflang', '/fr/']] }, '/fr/': {} }, found: [1, 1, 1] },
  variants_unsettled: { pages: { '/': {}, '/Visit': {}, '/visit/': {} }, found: [2, 2, 2] },
  duplicates: {
    pages: { '/': {}, '/a': { contentHash: 'c0' }, '/b': { contentHash: 'c0' } },
    found: [2, 2, 1],
  },
  near_duplicates: {
    pages: {
      '/a': { contentHash: 'c1', wordCount: 50, fingerprint: Uint8Array.of(1, 2, 3, 4, 5, 6, 7, 8) },
      '/b': { contentHash: 'c2', wordCount: 50, fingerprint: Uint8Array.of(1, 2, 3, 4, 5, 6, 7, 9) },
      '/c': { contentHash: 'c3', wordCount: 50, fingerprint: Uint8Array.of(9, 9, 9, 4, 5, 6, 7, 9) },
    },
    found: [2, 2, 1],
  },
  no_title: { pages: { '/': { title: '' }, '/a': { title: null } }, found: [2, 2, 2] },
  no_h1: { pages: { '/': { h1: 'Museum' }, '/a': {} }, found: [1, 1, 1] },
  thin: { pages: { '/': { wordCount: 3 }, '/a': { wordCount: 300 } }, found: [1, 1, 1] },
  failing: { pages: { '/': {}, '/a': { status: 503, html: false } }, found: [1, 1, 1] },
  robots_all_closed: { pages: { '/': {} }, files: robots('User-agent: *\nDisallow: /'), found: [1, 1, 1] },
  robots_unreadable: {
    pages: { '/': {} },
    files: robots('', 503, { code: 'status', status: 503, tries: 1 }),
    found: [1, 1, 1],
  },
  robots_html: { pages: { '/': {} }, files: robots('<html><body>Not here'), found: [0, 1, 1] },
  robots_early: { pages: { '/': {} }, files: robots('Disallow: /x\nAllow: /y'), found: [0, 2, 2] },
  robots_unknown: { pages: { '/': {} }, files: robots('Welcome, robots'), found: [0, 1, 1] },
  robots_empty: { pages: { '/': {} }, files: robots('User-agent: *'), found: [0, 1, 1] },
  resources_closed: {
    pages: { '/': { declared: [['style', 'https://tiny.example/css/main.css']] } },
    files: robots('User-agent: *\nDisallow: /css/'),
    found: [0, 1, 1],
  },
  listed_not_indexable: {
    pages: { '/': { links: ['/a'] }, '/a': { noindex: true } },
    listed: ['/a'],
    found: [1, 1, 1],
  },
  listed_blocked: {
    pages: {
      '/': { links: ['/a'] },
      '/a': { robotsRule: { line: 2, directive: 'disallow', path: '/a', group: '*' }, status: null, html: false },
    },
    listed: ['/a'],
    found: [1, 1, 1],
  },
  indexable_not_listed: { pages: { '/': { links: ['/a'] }, '/a': {} }, listed: ['/'], found: [1, 1, 1] },
  no_sitemap: { pages: { '/': { links: ['/a'] }, '/a': {} }, found: [2, 1, 1] },
  listed_no_route: { pages: { '/': {}, '/a': {} }, listed: ['/a'], found: [1, 1, 1] },
  sitemap_large: {
    pages: { '/': {} },
    files: {
      sitemaps: [
        {
          address: tiny('/sitemap.xml'),
          entries: 50_001,
          skipped: 0,
          isFeed: false,
          fault: null,
          faultLine: null,
          index: null,
          answer: null,
        },
      ],
    },
    found: [0, 1, 1],
  },
  sitemap_twice: { pages: { '/': { links: ['/a'] }, '/a': {} }, listed: ['/a', '/', '/a'], found: [0, 1, 1] },
  sitemap_fault: { pages: { '/': {} }, files: sitemap({ code: 'empty_file' }), found: [0, 1, 1] },
  sitemap_foreign: { pages: { '/': {} }, files: sitemap(null, 3), found: [0, 1, 1] },
  robots_sitemap: {
    pages: { '/': {} },
    files: { ...robots('Sitemap: https://tiny.example/sitemap.xml'), ...sitemap({ code: 'empty_file' }) },
    found: [0, 1, 1],
  },
};

describe('every finding', () => {
  it.each(Object.entries(cases))('%s', (id, { pages, listed, files, found }) => {
    const snapshot = tinySite(pages, listed, { files: { robots: [], sitemaps: [], ...files } });
    const one = findingsOf(snapshot, settings).find((finding) => finding.id === id);
    expect(one && [one.pages, one.occurrences, one.edits]).toEqual(found);
    expect(one!.cost).toBeGreaterThanOrEqual(0);
  });
  it('holds on no site without a fault', () => {
    const page = (others: string[]): TinyPage => ({
      worded: others.map((to): [string, string] => [to, to === '/' ? 'Museum of trams' : `Hall ${to.slice(1)}`]),
      title: 'Hall and museum of trams',
      h1: 'Hall',
      wordCount: 400,
    });
    const clean = tinySite({ '/': page(['/one', '/two']), '/one': page(['/', '/two']), '/two': page(['/', '/one']) }, [
      '/',
      '/one',
      '/two',
    ]);
    expect(findingsOf(clean, settings).map(({ id }) => id)).toEqual([]);
  });
  it('of sitemaps is told where the site has one, and only then', () => {
    const ids = (listed: string[]) =>
      findingsOf(tinySite({ '/': { links: ['/a'] }, '/a': {} }, listed), settings).map(({ id }) => id);
    expect(ids([])).toContain('no_sitemap');
    expect(ids([])).not.toContain('indexable_not_listed');
    expect(ids(['/'])).toContain('indexable_not_listed');
    expect(ids(['/'])).not.toContain('no_sitemap');
    const unasked = { ...settings, usualSitemaps: false };
    expect(findingsOf(tinySite({ '/': {} }), unasked).map(({ id }) => id)).not.toContain('no_sitemap');
  });
  it('is said in sentences', () => {
    for (const { id, name, rule, why, remedy } of findings) {
      expect([id, /^\p{Lu}|^robots\.txt|^hreflang/u.test(name) && !/[.!]$/.test(name)]).toEqual([id, true]);
      for (const text of [rule, why, remedy])
        expect([id, text, /^(\p{Lu}|robots\.txt).*[^.]\.$/u.test(text) && !/!|\bplease\b/i.test(text)]).toEqual([
          id,
          text,
          true,
        ]);
    }
  });
  it('is tried here, but for those that need more than a tiny site can say', () =>
    expect(findings.map(({ id }) => id).filter((id) => !cases[id])).toEqual([
      'outside_broken',
      'lost_fragments',
      'image_no_alt',
      'canonical_relative',
      'canonical_in_body',
      'lastmod_malformed',
    ]));
});

it.each([
  ['2027', true],
  ['2027-03-01', true],
  ['2027-03-01T09:30Z', true],
  ['2027-03-01T09:30:15.5+01:00', true],
  ['2027-3-1', false],
  ['1 March 2027', false],
  ['2027-03-01 09:30', false],
])('takes %s for a W3C date: %s', (text, isDate) => {
  const finding = findings.find(({ id }) => id === 'lastmod_malformed')!;
  const selection = finding.over === 'pages' ? finding.select(thresholds) : '';
  const pattern = JSON.parse(/matches (".*")$/.exec(selection)![1]) as string;
  expect(patternMatcher(pattern).test(text)).toBe(isDate);
});
