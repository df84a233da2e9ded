import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { columnWord, detectEncoding, guessColumns, guessDecimal, guessDelimiter, readDate, readNumber } from '.';

describe('the delimiter of a list', () => {
  it.each([
    [['Address,Clicks', '/a,3', '"/b,c",4'], ','],
    [['Adresse;Klicks', '/a;1,5', '/b;2,5'], ';'],
    [['url\tvisits', '/a\t1', '/b\t2'], '\t'],
    [['https://www.larkfield.example/', 'https://www.larkfield.example/visit'], null],
    [['https://www.larkfield.example/?a=1,2', 'https://www.larkfield.example/visit'], null],
    [[], null],
  ])('of %j is %j', (lines, delimiter) => expect(guessDelimiter(lines)).toBe(delimiter));
});

describe('the columns of a list', () => {
  it('are the addresses, and the numbers with their names', () =>
    expect(
      guessColumns([
        ['Rank', 'Title', 'Landing page', 'Total clicks', 'CTR'],
        ['1', 'Visit', 'https://www.larkfield.example/visit/', '1,204', '3.5 %'],
        ['2', 'Shop', '/shop', '98', '—'],
      ]),
    ).toEqual({
      hasHeader: true,
      addressColumn: 2,
      numbers: [
        { index: 0, name: 'rank', isDate: false },
        { index: 3, name: 'total_clicks', isDate: false },
        { index: 4, name: 'ctr', isDate: false },
      ],
      decimal: '.',
    }));
  it('need no header', () =>
    expect(
      guessColumns([
        ['/a', '3'],
        ['/b', '4'],
      ]),
    ).toEqual({
      hasHeader: false,
      addressColumn: 0,
      numbers: [{ index: 1, name: 'column_2', isDate: false }],
      decimal: '.',
    }));
  it('can be named or numbered', () => {
    const rows = [
      ['From', 'To'],
      ['/a', '/b'],
    ];
    expect(guessColumns(rows, 'to')?.addressColumn).toBe(1);
    expect(guessColumns(rows, '2')?.addressColumn).toBe(1);
    expect(guessColumns(rows, 'elsewhere')).toBeNull();
    expect(guessColumns(rows, '9')).toBeNull();
  });
  it('are none when nothing looks like an address', () =>
    expect(guessColumns([['Name'], ['Ada'], ['Grace']])).toBeNull());
  it('with equal names are told apart', () =>
    expect(
      guessColumns([
        ['url', 'n', 'n'],
        ['/a', '1', '2'],
      ])?.numbers.map(({ name }) => name),
    ).toEqual(['n', 'n_2']));
});

describe('dates', () => {
  it('make columns that are named for what they are', () =>
    expect(
      guessColumns([
        ['url', 'Last visit', 'Update date', 'Visits date'],
        ['/a', '2026-10-02 09:30', '02.10.2026', '7'],
        ['/b', '2026-11-03 10:00', '31.12.2025', '9'],
      ])?.numbers.map(({ name, isDate }) => [name, isDate]),
    ).toEqual([
      ['last_visit_date', true],
      ['update_date', true],
      ['visits', false],
    ]));
  const at = (text: string) => Date.parse(text) / 1000;
  it.each([
    ['2026-10-02', at('2026-10-02T00:00:00Z')],
    ['2026-10-02T09:30:00+02:00', at('2026-10-02T07:30:00Z')],
    ['2026-10-02 9:30', at('2026-10-02T09:30:00Z')],
    ['2026/10/02', at('2026-10-02T00:00:00Z')],
    ['2.10.2026, 09:30', at('2026-10-02T09:30:00Z')],
    ['31.02.2026', null],
    ['10/02/2026', null],
    ['2026', null],
    ['soon', null],
  ])('%s', (text, seconds) => expect(readDate(text)).toBe(seconds));
});

describe('numbers', () => {
  it.each([
    ['1,234', 1234],
    ['1,234.5', 1234.5],
    ['12 %', 12],
    ['1 234', 1234],
    ['-3', -3],
    ['2e3', 2000],
    ['3 days', null],
    ['', null],
    ['2026-10-01', null],
  ])('“%s” is %j', (cell, value) => expect(readNumber(cell)).toBe(value));
  it.each([
    ['1.234,5', 1234.5],
    ['0,5', 0.5],
    ['1.379', 1379],
    ['1.234.567', 1234567],
  ])('“%s” is %j where the decimal sign is a comma', (cell, value) => expect(readNumber(cell, ',')).toBe(value));
  it.each([
    [['1.379', '0,72'], ','],
    [['1,379', '0.72'], '.'],
    [['1.379', '2.011'], '.'],
    [['2026-10-01', 'a,b'], '.'],
  ])('have the decimal sign that is plain in %j', (cells, sign) => expect(guessDecimal(cells)).toBe(sign));
  it('as programs write them are read as they are', () =>
    fc.assert(fc.property(fc.integer(), (value) => void expect(readNumber(String(value))).toBe(value))));
  it('have names that the selection language can write', () =>
    expect(['Total clicks', 'Klicks (gesamt)', '30 days', 'Événements'].map(columnWord)).toEqual([
      'total_clicks',
      'klicks_gesamt',
      'n_30_days',
      'evenements',
    ]));
});

describe('encodings', () => {
  const text = 'address;visits\n/café;3\n';
  it.each([
    ['utf-8', Buffer.from(text, 'utf8')],
    ['utf-16le', Buffer.from(`\ufeff${text}`, 'utf16le')],
    ['utf-16le', Buffer.from(text, 'utf16le')],
    ['utf-16be', Buffer.from(`\ufeff${text}`, 'utf16le').swap16()],
    ['windows-1252', Buffer.from(text, 'latin1')],
  ])('%s is told by the bytes', (encoding, bytes) => expect(detectEncoding(bytes, true)).toBe(encoding));
  it('is UTF-8 where a character is cut at the end of what is there', () =>
    expect(detectEncoding(Buffer.from('caf\u00e9').subarray(0, 4))).toBe('utf-8'));
});
