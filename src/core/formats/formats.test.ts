import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { tiny, tinySite } from '../testing/tinySite';
import { pageList } from '../lists';
import { evaluate } from '../selection';
import { csvPieces, linksCsv, listAs, pagesCsv, summarize } from '.';
import type { Cell, TableFormat } from '.';

/** A reader of RFC 4180 of its own. */
function parse(text: string): string[][] {
  const rows: string[][] = [[]];
  const field = /(?:"((?:[^"]|"")*)"|([^",\r\n]*))(,|\r\n|$)/y;
  while (field.lastIndex < text.length) {
    const [, quoted, plain, end] = field.exec(text)!;
    rows[rows.length - 1].push(quoted?.replaceAll('""', '"') ?? plain);
    if (end === '\r\n') rows.push([]);
  }
  return rows.slice(0, -1);
}

const csvRow = (cells: Cell[]) => [...csvPieces([cells])].join('');

describe('CSV', () => {
  it('quotes what must be quoted, and leaves unknown empty', () =>
    expect(csvRow(['a', 'b,c', 'say "hi"', 'two\nlines', 3, false, null])).toBe(
      'a,"b,c","say ""hi""","two\nlines",3,false,\r\n',
    ));
  it('keeps a spreadsheet from taking a text for a formula', () =>
    expect(csvRow(['=1+1', '+x', '-y', '@z', '\tt', '＝1', '＋1', '－1', '＠a'])).toBe(
      "'=1+1,'+x,'-y,'@z,'\tt,'＝1,'＋1,'－1,'＠a\r\n",
    ));
  it('is read back as it was, in however many pieces', () =>
    fc.assert(
      fc.property(
        fc.array(
          fc.array(
            fc.string({ minLength: 1 }).map((text) => `a${text}`),
            { minLength: 3, maxLength: 3 },
          ),
          { minLength: 1, maxLength: 3 },
        ),
        fc.constantFrom(1, 400),
        (rows, times) => {
          const all = Array.from({ length: times }, () => rows).flat();
          expect(parse([...csvPieces(all)].join(''))).toEqual(all);
        },
      ),
      { numRuns: 30 },
    ));
});

const snapshot = tinySite(
  {
    '/': {
      worded: [
        ['/a', 'The, "A"'],
        ['https://other.example/', 'Out'],
      ],
    },
    '/a': { canonical: '/a', declared: [['canonical', '/a']] },
    '/lost': { noindex: true, robots: 'noindex' },
  },
  ['/lost'],
);

it('writes pages.csv with its columns in order', () => {
  const [head, ...rows] = parse([...pagesCsv(snapshot)].join(''));
  expect(head.join()).toBe(
    'url,status,content_type,title,depth,reach,pages_linking,links_in,pages_linked,links_out,verdict,canonical,robots,noindex,seen_in,redirect_to,' +
      'crawler_depth,share,gate_for,island,description,h1,word_count,language,robots_rule,canonical_state,verdict_reason,duplicates,near_duplicates,' +
      'robots_line,unvisited_reason,redirect_state',
  );
  expect(rows.map((row) => row.slice(0, 16))).toEqual([
    [tiny('/'), '200', 'text/html', '/', '0', 'reached', '0', '0', '1', '2', 'indexable', '', '', 'false', 'start', ''],
    [
      tiny('/a'),
      '200',
      'text/html',
      '/a',
      '1',
      'reached',
      '1',
      '1',
      '0',
      '0',
      'indexable',
      tiny('/a'),
      '',
      'false',
      'links',
      '',
    ],
    [
      tiny('/lost'),
      '200',
      'text/html',
      '/lost',
      '',
      'orphan',
      '0',
      '0',
      '0',
      '0',
      'noindex',
      '',
      'noindex',
      'true',
      'sitemap',
      '',
    ],
  ]);
  const named = (row: string[]) => Object.fromEntries(head.map((name, i) => [name, row[i]]));
  expect(named(rows[1])).toMatchObject({
    crawler_depth: '1',
    gate_for: '0',
    canonical_state: 'self',
    duplicates: '',
    robots_rule: '',
  });
  // Two nodes, one link: with d = 0.85 and what '/a' has spread evenly, shares are 1 / (2 + d) and (1 + d) / (2 + d).
  expect([named(rows[0]).share, named(rows[1]).share]).toEqual(['0.701754', '1.298246']);
  expect(named(rows[2])).toMatchObject({ share: '', crawler_depth: '', verdict_reason: 'noindex' });
});
it('writes every click link to links.csv, outside targets too', () =>
  expect(parse([...linksCsv(snapshot)].join(''))).toEqual([
    ['source', 'target', 'anchor', 'rel', 'element', 'placement', 'line', 'column'],
    [tiny('/'), tiny('/a'), 'The, "A"', '', 'a', 'main', '1', '1'],
    [tiny('/'), 'https://other.example/', 'Out', '', 'a', 'main', '2', '1'],
  ]));
it('sums up', () =>
  expect(summarize(snapshot)).toEqual({
    pages: 3,
    verdict: { indexable: 2, noindex: 1 },
    reach: { reached: 2, orphan: 1 },
    depth: { 0: 1, 1: 1 },
    crawler_reach: { reached: 2, not_reached: 1 },
    crawler_depth: { 0: 1, 1: 1 },
    held_back: {},
    links: 2,
    sitemap_only: 1,
    sections: [
      { section: '', pages: 1, indexable: 1, median_depth: 0, no_route: 0, share: expect.closeTo(0.7018, 3) as number },
      {
        section: 'a',
        pages: 1,
        indexable: 1,
        median_depth: 1,
        no_route: 0,
        share: expect.closeTo(1.2982, 3) as number,
      },
      { section: 'lost', pages: 1, indexable: 0, median_depth: null, no_route: 1, share: 0 },
    ],
  }));

describe('a list as it is seen', () => {
  const site = tinySite({
    '/': { links: ['/a', '/b'], title: 'Home\tand "more"' },
    '/a': { title: '=SUM(A1:A9)' },
    '/b': { title: null, noindex: true },
  });
  const all = evaluate(site, { op: 'all' });
  const written = (format: TableFormat, columns: string[], rows?: number[]) => {
    const list = pageList(site, all);
    return [...listAs(format, list, rows ?? list.rows, columns)].join('');
  };
  it('is CSV under the names of the facts, in the order of the columns', () =>
    expect(written('csv', ['title', 'depth', 'seen_in', 'nonsense'])).toBe(
      'title,depth,seen_in\r\n"Home\tand ""more""",0,start\r\n\'=SUM(A1:A9),1,links\r\n,1,links\r\n',
    ));
  it('is a table for the clipboard under the labels, a line a row, without formulas', () =>
    expect(written('tsv', ['url', 'title'])).toBe(
      `Address\tTitle\r\n${tiny('/')}\tHome and "more"\r\n${tiny('/a')}\t'=SUM(A1:A9)\r\n${tiny('/b')}\t\r\n`,
    ));
  it('is JSON with values as they are', () => {
    expect(JSON.parse(written('json', ['title', 'noindex', 'seen_in'], [0, 2]))).toEqual([
      { title: 'Home\tand "more"', noindex: false, seen_in: ['start'] },
      { title: null, noindex: true, seen_in: ['links'] },
    ]);
    expect(JSON.parse(written('json', ['title'], []))).toEqual([]);
  });
});
