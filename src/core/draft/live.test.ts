import { expect, it } from 'vitest';
import { settingsSchema } from '../settings';
import type { View } from '../view';
import { tiny, tinySite, TINY_START } from '../testing/tinySite';
import { addressesOf, crawledSite, draftOf, draftOfCrawl, editOf, outcomeTest } from '.';
import type { Edit, Outcome } from '.';

const settings = settingsSchema.parse({ start: TINY_START });
const site = tinySite({
  '/': {
    worded: [
      ['/a', 'Trams'],
      ['/b', 'Buses', 'footer'],
    ],
  },
  '/a': { worded: [['/b', 'Buses', 'footer']], robots: 'noarchive' },
  '/b': {},
  '/old': { status: 301, html: false, redirectTo: '/a' },
});
const notYet: Outcome = { state: 'not_yet', found: null };
const otherwise = (code: 'found_redirect' | 'found_words' | 'found_no_link' | 'found_partly', params: object = {}) =>
  ({ state: 'otherwise', found: { code, ...params } }) as Outcome;
const outcomeOf = (view: View, edit: Edit) => outcomeTest(crawledSite(view), settings)(edit);
const edits: Edit[] = [
  editOf('add_link', tiny('/b'), { target: tiny('/a'), anchor: 'Trams' }),
  editOf('remove_link', '*', { target: tiny('/b'), placement: 'footer' }),
  editOf('reword_link', tiny('/'), { target: tiny('/a'), anchor: 'Trams', value: 'All trams' }),
  editOf('retarget_link', tiny('/'), { target: tiny('/a'), value: tiny('/b') }),
  editOf('retarget_link', '*', { target: tiny('/a'), value: tiny('/b') }),
  editOf('reword_link', '*', { target: tiny('/a'), anchor: 'Trams', value: 'All trams' }),
  editOf('add_page', tiny('/new'), { value: 'New' }),
  editOf('remove_page', tiny('/a'), { value: '410' }),
  editOf('redirect', tiny('/b'), { target: tiny('/a') }),
  editOf('move_page', tiny('/b'), { target: '/c' }),
  editOf('move_page', tiny('/a*'), { target: '/new/a*' }),
  editOf('canonical', tiny('/a'), { target: tiny('/b') }),
  editOf('noindex', tiny('/a')),
  editOf('nofollow', tiny('/a')),
];

it.each(edits)('an edit is live once the website is so: $op', (edit) => {
  expect(outcomeOf(site, edit).state).not.toBe('live');
  const { view, refusals } = draftOf(site, [edit], settings);
  expect(refusals).toEqual([null]);
  expect(outcomeOf(view, edit)).toEqual({ state: 'live', found: null });
});

it('a link to what nothing is known of is not live, whatever else the page links to', () => {
  const last = tinySite({ '/': { links: ['/z'] }, '/z': {} });
  expect(outcomeOf(last, editOf('add_link', tiny('/'), { target: tiny('/new') })).state).toBe('not_yet');
});

it('what a later crawl has found is not done again, and what it cannot do is refused', () => {
  const made = (edit: Edit, i: number) => ({
    ...edit,
    id: String(i),
    at: new Date(1000),
    on: i !== 2,
    done: false,
    note: '',
  });
  const kept = [editOf('redirect', tiny('/old'), { target: tiny('/a') }), editOf('noindex', tiny('/none')), edits[11]];
  const over = (began: number) => draftOfCrawl({ view: site, settings, began: new Date(began) }, kept.map(made));
  expect(over(2000).states.map(({ state }) => state)).toEqual(['live', 'refused', 'off']);
  expect(over(500).states.map(({ state }) => state)).toEqual(['applied', 'refused', 'off']);
});

it.each<[string, Edit, Outcome]>([
  [
    'another redirect',
    editOf('redirect', tiny('/old'), { target: tiny('/b') }),
    otherwise('found_redirect', { address: tiny('/a') }),
  ],
  ['a page as before', editOf('redirect', tiny('/b'), { target: tiny('/a') }), notYet],
  [
    'other words',
    editOf('add_link', tiny('/'), { target: tiny('/a'), anchor: 'All trams' }),
    otherwise('found_words', { words: 'Trams' }),
  ],
  ['the old words', edits[2], notYet],
  [
    'neither link',
    editOf('retarget_link', tiny('/a'), { target: tiny('/'), value: tiny('/old') }),
    otherwise('found_no_link'),
  ],
  [
    'a redirect where a page should be edited',
    editOf('noindex', tiny('/old')),
    otherwise('found_redirect', { address: tiny('/a') }),
  ],
  ['nothing, as nobody asked', editOf('noindex', tiny('/none')), { state: 'unknown', found: null }],
  [
    'a part of the pages',
    editOf('remove_link', tiny('/*'), { target: tiny('/a') }),
    otherwise('found_partly', { done: 2, looked: 3, first: tiny('/') }),
  ],
  [
    'a link that no page of a pattern has',
    editOf('retarget_link', '*', { target: tiny('/none'), value: tiny('/old') }),
    otherwise('found_no_link'),
  ],
  ['a link that one page has', editOf('retarget_link', '*', { target: tiny('/a'), value: tiny('/c') }), notYet],
  ['no page of a pattern', editOf('noindex', tiny('/*')), notYet],
])('what is there instead of an edit: %s', (_, edit, outcome) => {
  expect(outcomeOf(site, edit)).toEqual(outcome);
});

it('a robots.txt is told by the first line that differs', () => {
  const seen = { ...crawledSite(site), robots: () => 'User-agent: *\nDisallow: /a\n' };
  const outcome = (value: string) => outcomeTest(seen, settings)(editOf('robots', tiny('/'), { value }));
  expect(outcome('User-agent: *\nDisallow: /a').state).toBe('live');
  expect(outcome('User-agent: *\nDisallow: /b')).toMatchObject({ state: 'not_yet', found: { line: 2 } });
});

it('the addresses to ask for are the pages of edits, and some of a pattern', () => {
  const many = tinySite(
    Object.fromEntries(['/', ...Array.from({ length: 90 }, (_, i) => `/p${i}`)].map((path) => [path, {}])),
  );
  const asked = (...of: Edit[]) => addressesOf(of, many, settings);
  expect(asked(editOf('noindex', tiny('/p1')), editOf('move_page', tiny('/p1'), { target: '/q' }))).toEqual([
    tiny('/p1'),
    tiny('/q'),
  ]);
  expect(asked(editOf('noindex', '*'))).toHaveLength(40);
  expect(addressesOf([editOf('retarget_link', '*', { target: tiny('/a') })], site, settings)).toEqual([tiny('/')]);
  expect(asked(editOf('robots', tiny('/')))).toEqual([]);
});
