import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { draftOf } from '../draft';
import { settingsSchema } from '../settings';
import { factAt, pageOf } from '../snapshot';
import { tiny, tinySite, TINY_START } from '../testing/tinySite';
import { compareStructure, editsOfOutline, readOutline } from '.';

const tree = (text: string) =>
  readOutline(text, TINY_START).pages.map(({ address, title, level }) =>
    `${' '.repeat(level)}${new URL(address).pathname} ${title}`.trimEnd(),
  );

describe('an outline', () => {
  it.each<[string, string]>([
    ['spaces', 'Museum /\n  Visit /visit/\n    Tickets\n  Trams /trams'],
    ['tabs', 'Museum /\n\tVisit /visit/\n\t\tTickets\n\tTrams /trams'],
    ['bullets', '- Museum (/)\n  - Visit: https://tiny.example/visit/\n    - Tickets\n  - Trams – /trams'],
    ['numbers', '1. Museum /\n   1.1 Visit /visit/\n      1.1.1 Tickets\n   1.2 Trams /trams'],
    ['headings', '# Museum /\n## Visit /visit/\n\n### Tickets\n## /trams Trams'],
    ['a table', 'url,parent,title\n/,,Museum\n/visit/,/,Visit\n/visit/tickets,/visit/,Tickets\n/trams,/,Trams'],
  ])('is read by %s', (_, text) => {
    expect(tree(text)).toEqual(['/ Museum', ' /visit/ Visit', '  /visit/tickets Tickets', ' /trams Trams']);
  });
  it('gives pages without an address one from their titles, below their parents', () =>
    expect(tree('Über uns\n  Team & Café\nImpressum')).toEqual([
      ' /uber-uns Über uns',
      '  /uber-uns/team-cafe Team & Café',
      ' /impressum Impressum',
    ]));
  it('takes parents that come after their children, in a table', () =>
    expect(tree('page;parent\n/a/b;/a\n/a;')).toEqual([' /a', '  /a/b']));
  it('tells what it cannot read, by line', () => {
    const { faults } = readOutline('Trams /trams\n  !!!\nTrams again /trams', TINY_START);
    expect(faults).toEqual([
      { line: 2, message: { code: 'outline_no_address', text: '!!!' } },
      { line: 3, message: { code: 'outline_twice', address: tiny('/trams'), first: 1 } },
    ]);
    expect(readOutline('url,parent\n/a,/b\n/b,/a', TINY_START).faults.map(({ line }) => line)).toEqual([2, 3]);
  });
  it('reads any text, and every page has a parent before it or none', () =>
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), (text) => {
        readOutline(text, TINY_START).pages.forEach(({ parent }, i) => expect(parent).toBeLessThan(i));
      }),
    ));
});

it('the structure that was meant is set beside the one that was crawled', () => {
  const site = tinySite({
    '/': { links: ['/visit', '/hub', '/moved'] },
    '/visit': {},
    '/hub': { links: ['/trams', '/visit/prices'] },
    '/trams': {},
    '/visit/prices': {},
    '/moved': { status: 301, html: false, redirectTo: '/hub' },
    '/lost': {},
  });
  const outline = readOutline(
    '/\n  /visit\n    /visit/prices\n    /visit/cafe\n  /trams\n  /moved\n  /lost',
    TINY_START,
  );
  const { pages, counts, extra, extraCount } = compareStructure(site, outline, 10);
  expect(pages.map(({ state }) => state)).toEqual([
    'as_meant',
    'as_meant',
    'elsewhere',
    'missing',
    'elsewhere',
    'no_page',
    'no_route',
  ]);
  expect(pages[2]).toMatchObject({ depth: 2, parent: tiny('/hub') });
  expect(counts).toMatchObject({ as_meant: 2, elsewhere: 2, missing: 1 });
  expect([extra, extraCount]).toEqual([[tiny('/hub')], 1]);
  const deep = readOutline('/trams', TINY_START);
  expect(compareStructure(site, deep, 0).pages[0].state).toBe('deeper');
});

it('an outline is a site that does not exist yet', () => {
  const empty = tinySite({ '/': { status: null, html: false, contentType: null } });
  const edits = editsOfOutline(readOutline('Museum /\n  Visit\n    Tickets', TINY_START), TINY_START);
  const { view, refusals } = draftOf(empty, edits, settingsSchema.parse({ start: TINY_START }));
  expect(refusals.every((refusal) => refusal === null)).toBe(true);
  const tickets = pageOf(view, tiny('/visit/tickets'));
  expect([factAt(view, 'depth', tickets), factAt(view, 'verdict', tickets), factAt(view, 'title', tickets)]).toEqual([
    2,
    'indexable',
    'Tickets',
  ]);
});
