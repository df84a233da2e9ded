import { expect, it } from 'vitest';
import { settingsSchema } from '../settings';
import { tiny, tinySite, TINY_START } from '../testing/tinySite';
import { draftOf, draftOfCrawl, editOf, liveTest } from '.';
import type { Edit } from '.';

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
const edits: Edit[] = [
  editOf('add_link', tiny('/b'), { target: tiny('/a'), anchor: 'Trams' }),
  editOf('remove_link', '*', { target: tiny('/b'), placement: 'footer' }),
  editOf('reword_link', tiny('/'), { target: tiny('/a'), anchor: 'Trams', value: 'All trams' }),
  editOf('retarget_link', tiny('/'), { target: tiny('/a'), value: tiny('/b') }),
  editOf('add_page', tiny('/new'), { value: 'New' }),
  editOf('remove_page', tiny('/a'), { value: '410' }),
  editOf('redirect', tiny('/b'), { target: tiny('/a') }),
  editOf('move_page', tiny('/b'), { target: '/c' }),
  editOf('canonical', tiny('/a'), { target: tiny('/b') }),
  editOf('noindex', tiny('/a')),
  editOf('nofollow', tiny('/a')),
];

it.each(edits)('an edit is live once the website is so: $op', (edit) => {
  expect(liveTest(site, settings)(edit)).toBe(false);
  const { view, refusals } = draftOf(site, [edit], settings);
  expect(refusals).toEqual([null]);
  expect(liveTest(view, settings)(edit)).toBe(true);
});

it('a link to what nothing is known of is not live, whatever else the page links to', () => {
  const last = tinySite({ '/': { links: ['/z'] }, '/z': {} });
  expect(liveTest(last, settings)(editOf('add_link', tiny('/'), { target: tiny('/new') }))).toBe(false);
});

it('what a later crawl has found is not done again, and what it cannot do is refused', () => {
  const made = (edit: Edit, i: number) => ({ ...edit, id: String(i), at: new Date(1000), on: i !== 2, note: '' });
  const kept = [editOf('redirect', tiny('/old'), { target: tiny('/a') }), editOf('noindex', tiny('/none')), edits[9]];
  const over = (began: number) => draftOfCrawl({ view: site, settings, began: new Date(began) }, kept.map(made));
  expect(over(2000).states.map(({ state }) => state)).toEqual(['live', 'refused', 'off']);
  expect(over(500).states.map(({ state }) => state)).toEqual(['applied', 'refused', 'off']);
});
