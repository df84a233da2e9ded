import { describe, expect, it } from 'vitest';
import { sourceLines } from '.';

const bytes = (text: string) => new TextEncoder().encode(text);
const shown = (runs: { text: string; marked: boolean; left?: number }[]) =>
  runs
    .map(({ text, marked, left }) => (left ? `…${left}…` : marked ? `[${text}]` : text))
    .join('')
    .replaceAll('][', '');
const read = (html: string, marks: [number, number][], from = 1, count = 10) => {
  const { lines, total } = sourceLines(
    bytes(html),
    undefined,
    marks.map(([line, column]) => ({ line, column })),
    from,
    count,
  );
  return { total, lines: lines.map(({ number, runs }) => `${number} ${shown(runs)}`) };
};

describe('the source of a page', () => {
  it('marks a link from its tag to its end', () =>
    expect(read('<p>\r\n  See <a href="/a">the <b>trams</b></a>, <a href="/b">buses</a>.\r\n</p>', [[2, 7]])).toEqual({
      total: 3,
      lines: ['1 <p>', '2   See [<a href="/a">the <b>trams</b></a>], <a href="/b">buses</a>.', '3 </p>'],
    }));
  it('marks the tag of what has no end', () =>
    expect(read('<link rel="canonical" href="/a"><title>A</title>', [[1, 1]]).lines).toEqual([
      '1 [<link rel="canonical" href="/a">]<title>A</title>',
    ]));
  it('counts columns in bytes and shows characters', () =>
    expect(read('é <a href="/é">Zoë</a> 🚋', [[1, 4]]).lines).toEqual(['1 é [<a href="/é">Zoë</a>] 🚋']));
  it('folds long lines around what is marked', () => {
    const before = 'x'.repeat(1000);
    const [line] = read(`${before}<a href="/a">A</a>${before}`, [[1, 1001]]).lines;
    expect(line).toBe(`1 …860…${'x'.repeat(140)}[<a href="/a">A</a>]${'x'.repeat(140)}…860…`);
    expect(read(before, []).lines).toEqual([`1 ${'x'.repeat(140)}…860…`]);
  });
  it('tells what each run is, on lines that begin within something, too', () => {
    const { lines } = sourceLines(bytes('<!-- a\nb à --><a href="/à">Zoë</a>'), undefined, [], 2, 1);
    expect(lines[0].runs.map(({ text, part }) => [text, part])).toEqual([
      ['b à -->', 'comment'],
      ...[
        ['<a', 'tag'],
        [' ', undefined],
        ['href', 'attribute'],
        ['=', undefined],
        ['"/à"', 'value'],
        ['>', 'tag'],
      ],
      ...[
        ['Zoë', undefined],
        ['</a', 'tag'],
        ['>', 'tag'],
      ],
    ]);
  });
  it('gives a window of the lines', () =>
    expect(read('a\nb\nc\nd\ne', [], 4, 3)).toEqual({ total: 5, lines: ['3 c', '4 d', '5 e'] }));
  it('does without a link where a place is wrong', () =>
    expect(
      read('short', [
        [1, 900],
        [7, 1],
      ]).lines.join(),
    ).toContain('short'));
});
