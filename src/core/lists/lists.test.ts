import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { evaluate, evaluateLinks, numbersOf, parseLinkSelection, parseSelection } from '../selection';
import { tiny, tinySite } from '../testing/tinySite';
import {
  anchorList,
  columnOf,
  editList,
  hostList,
  linkList,
  listColumns,
  orderRows,
  pageGroups,
  pageList,
  summaryOf,
} from '.';
import type { List } from '.';

const footer = (words: string, to: string): [string, string, 'footer'] => [to, words, 'footer'];
const snapshot = tinySite(
  {
    '/': {
      worded: [
        ['/shop/', 'Shop'],
        ['/shop/mugs', 'Mugs'],
        footer('Imprint', '/imprint'),
        ['https://else.example/a', 'Else'],
      ],
    },
    '/shop/': { worded: [['/shop/mugs', 'Mugs'], ['/old', 'Prices'], footer('Imprint', '/imprint')] },
    '/shop/mugs': { noindex: true, worded: [footer('Imprint', '/imprint'), ['https://else.example/b', 'More']] },
    '/old': { status: 301, html: false, redirectTo: '/imprint', title: null },
    '/imprint': {},
    '/lost': { title: null },
  },
  ['/lost'],
);
const pagesOf = (text: string) => {
  const parsed = parseSelection(text);
  if (!parsed.ok) throw new Error(parsed.fault.message);
  return evaluate(snapshot, parsed.selection);
};
const linksOf = (text: string) => {
  const parsed = parseLinkSelection(text);
  if (!parsed.ok) throw new Error(`${text}: ${parsed.fault.message}`);
  return numbersOf(evaluateLinks(snapshot, parsed.selection));
};
const cells = (list: List, column: string, rows: Uint32Array = list.rows) => Array.from(rows, list.cells(column).value);

describe('the list of pages', () => {
  const list = pageList(snapshot, pagesOf(''));
  it('reads every column that it names', () => {
    for (const { name } of listColumns.pages) expect(cells(list, name)).toHaveLength(snapshot.count);
    expect(() => list.cells('frobnication')).toThrow(/no column/);
  });
  it('sorts by texts, numbers and ratios, unknown last whatever the direction', () => {
    const depths = (sort: boolean) => cells(list, 'depth', orderRows(list, 'depth', sort));
    expect(depths(false)).toEqual([0, 1, 1, 1, 2, null]);
    expect(depths(true)).toEqual([2, 1, 1, 1, 0, null]);
    expect(cells(list, 'title', orderRows(list, 'title', false)).slice(-2)).toEqual([null, null]);
    const share = cells(list, 'share', orderRows(list, 'share', true)).filter((own) => own !== null) as number[];
    expect(share).toEqual([...share].sort((a, b) => b - a));
  });
  it.each([
    ['number', fc.integer({ min: -1, max: 90_000 })],
    ['ratio', fc.constantFrom(1, 1 + 2 ** -40, 1 + 2 ** -41, 1 + 2 ** -50, -1)],
    ['ratio', fc.oneof(fc.constant(-1), fc.constant(0), fc.double({ min: 0, max: 1e6, noNaN: true }))],
  ] as const)('sorts many rows by a %s as a comparison would, unknown last', (type, values) =>
    fc.assert(
      fc.property(fc.array<number>(values, { minLength: 1, maxLength: 400 }), fc.boolean(), (keys, down) => {
        const rows: List = {
          columns: [{ name: 'n', label: 'N', meaning: '', sort: 'low', type }],
          rows: Uint32Array.from(keys.keys()),
          bytes: 0,
          cells: () => ({ key: (row) => keys[row], value: (row) => keys[row] }),
          selectOf: () => '',
        };
        const expected = [...keys.keys()].sort((a, b) => {
          const [x, y] = [keys[a], keys[b]];
          if (x < 0 !== y < 0) return x < 0 ? 1 : -1;
          return x === y || x < 0 ? a - b : down ? y - x : x - y;
        });
        expect([...orderRows(rows, 'n', down)]).toEqual(expected);
      }),
      { numRuns: 20 },
    ),
  );
  it('is grouped by a fact, each group with the selection that holds it', () => {
    for (const by of ['section', 'verdict', 'depth', 'noindex', 'seen_in', 'title'] as const) {
      const groups = pageGroups(snapshot, pagesOf(''), by);
      for (const row of groups.rows)
        expect([by, numbersOf(pagesOf(groups.selectOf(row))).length]).toEqual([by, groups.cells('pages').value(row)]);
    }
    const sections = pageGroups(snapshot, pagesOf(''), 'section');
    expect([cells(sections, 'value')[0], cells(sections, 'indexable')[0], cells(sections, 'median_depth')[0]]).toEqual([
      'shop',
      1,
      1,
    ]);
  });
});

describe('the list of links', () => {
  it('tells of each link where it stands, where it leads and where that ends', () => {
    const list = linkList(snapshot, linksOf('anchor = "Prices"'));
    const row = Object.fromEntries(listColumns.links.map(({ name }) => [name, cells(list, name)[0]]));
    expect(row).toMatchObject({
      source: tiny('/shop/'),
      target: tiny('/old'),
      ends_at: tiny('/imprint'),
      target_verdict: 'redirect',
      target_status: 301,
      placement: 'main',
      followed: true,
      kind: 'click',
    });
    expect(cells(linkList(snapshot, linksOf('external')), 'target_verdict')).toEqual([null, null]);
  });
  it('is sorted by target with inside pages first', () => {
    const list = linkList(snapshot, linksOf('kind = click'));
    const targets = cells(list, 'target', orderRows(list, 'target', false)) as string[];
    expect(targets.slice(-2)).toEqual(['https://else.example/a', 'https://else.example/b']);
    expect(targets.slice(0, -2)).toEqual(targets.slice(0, -2).sort());
  });
  it('makes one edit of links that recur, with an example', () => {
    const list = editList(snapshot, linksOf('kind = click'));
    expect(['anchor', 'target', 'placement', 'pages', 'links', 'source'].map((name) => cells(list, name)[0])).toEqual([
      'Imprint',
      tiny('/imprint'),
      'footer',
      3,
      3,
      tiny('/'),
    ]);
    for (const row of list.rows)
      expect(linksOf(list.selectOf(row))).toHaveLength(list.cells('links').value(row) as number);
  });
  it('groups by words and target', () => {
    const list = anchorList(snapshot, linksOf('kind = click'));
    const mugs = cells(list, 'anchor').indexOf('Mugs');
    expect([cells(list, 'links')[mugs], cells(list, 'placements')[mugs], cells(list, 'followed_links')[mugs]]).toEqual([
      2,
      ['main'],
      2,
    ]);
    for (const row of list.rows)
      expect(linksOf(list.selectOf(row))).toHaveLength(list.cells('links').value(row) as number);
  });
  it('groups by the host that is linked to', () => {
    const list = hostList(snapshot, linksOf('kind = click and external'));
    expect(['host', 'links', 'pages', 'targets', 'checked'].map((name) => cells(list, name))).toEqual([
      ['else.example'],
      [2],
      [2],
      [2],
      [0],
    ]);
    expect(linksOf(list.selectOf(list.rows[0]))).toHaveLength(2);
  });
});

describe('the distribution of a column', () => {
  const list = pageList(snapshot, pagesOf(''));
  it('has bins whose tests hold as many rows as they say', () => {
    let bins = 0;
    for (const column of listColumns.pages)
      for (const { rows, select } of summaryOf('pages', list, column))
        if (select !== null) {
          bins++;
          expect([select, numbersOf(pagesOf(select)).length]).toEqual([select, rows]);
        }
    expect(bins).toBeGreaterThan(40);
  });
  it('sums sets up though some are unknown, as of a page that is removed', () => {
    const sets: (string[] | null)[] = [['links', 'sitemap'], null, ['links']];
    const column = columnOf('pages', 'seen_in')!;
    const list: List = {
      columns: [column],
      rows: Uint32Array.of(0, 1, 2),
      bytes: 0,
      cells: () => ({ key: (row) => (sets[row] ? row : -1), value: (row) => sets[row] }),
      selectOf: () => '',
    };
    const counted = summaryOf('pages', list, column).map(({ label, rows }) => [label, rows]);
    expect(counted).toEqual([
      ['links', 2],
      ['sitemap', 1],
    ]);
  });
  it('leaves texts out that are all different, and what no selection asks for', () => {
    expect(summaryOf('pages', list, columnOf('pages', 'url')!)).toEqual([]);
    const links = linkList(snapshot, linksOf('kind = click'));
    expect(summaryOf('anchors', anchorList(snapshot, linksOf('kind = click')), columnOf('anchors', 'pages')!)).toEqual(
      [],
    );
    expect(summaryOf('links', links, columnOf('links', 'placement')!).map(({ label, rows }) => [label, rows])).toEqual([
      ['main', 6],
      ['footer', 3],
    ]);
  });
});
