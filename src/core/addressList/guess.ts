/** What the rows of an exported list mean: which column has the addresses, and which have numbers or dates. */
import { DATE_ENDING } from '../imports';
import { readW3cDate } from '../sitemap';

/** How a text file is laid out. */
export interface Layout {
  /** Null for one address a line. */
  delimiter: ',' | ';' | '\t' | '|' | null;
  /** Whether the first row names the columns. */
  hasHeader: boolean;
  /** 0-based. */
  addressColumn: number;
  numbers: NumberColumn[];
  decimal: DecimalSign;
}

/** A column of numbers or of dates. */
export interface NumberColumn {
  /** 0-based. */
  index: number;
  isDate: boolean;
  /** As the header has it, made a word of the selection language: `Total clicks` is `total_clicks`. */
  name: string;
}

/** Rows that a guess looks at. */
export const SAMPLE_ROWS = 200;

const delimiters = ['\t', ';', ',', '|'] as const;

/** How often a character stands in a line outside of quotes. */
function countOutside(line: string, character: string): number {
  let count = 0;
  let isQuoted = false;
  for (const one of line) {
    if (one === '"') isQuoted = !isQuoted;
    else if (one === character && !isQuoted) count++;
  }
  return count;
}

/** The delimiter that most lines have, and all about as often; null when there is none. */
export function guessDelimiter(lines: readonly string[]): Layout['delimiter'] {
  const sample = lines.filter((line) => line.trim() !== '').slice(0, 50);
  let best: Layout['delimiter'] = null;
  let bestPart = 0.6;
  for (const delimiter of delimiters) {
    const counts = sample.map((line) => countOutside(line, delimiter));
    const usual = counts.filter((count) => count > 0).sort((a, b) => a - b)[counts.length >> 1] ?? counts[0] ?? 0;
    const part = usual > 0 ? counts.filter((count) => count === usual).length / counts.length : 0;
    if (part > bestPart) [best, bestPart] = [delimiter, part];
  }
  return best;
}

const named =
  /^(page ?|landing[ _]page|full[ _]|source |target )?(url|uri|address|page|link|path|page[ _]path|top pages|location)s?$/i;
/** An address, or a path from the root; a host without scheme too, when it has a path. */
const isAddress = (cell: string) =>
  /^\s*(https?:\/\/|\/(?!\/))/i.test(cell) || /^\s*[a-z0-9-]+(\.[a-z0-9-]+)+\/\S*\s*$/i.test(cell);

/** Which sign begins the decimals of the numbers of a file. */
export type DecimalSign = ',' | '.';

const stripped = (cell: string) =>
  cell
    .trim()
    .replace(/[\s\u00a0\u202f'’]/g, '')
    .replace(/%$/, '');

/**
 * Guesses the decimal sign of a file by what is plainly written with one: `0,21` and `1.234,5` have a comma. A comma or
 * point before three digits tells nothing.
 */
export function guessDecimal(cells: Iterable<string>): DecimalSign {
  let [commas, points] = [0, 0];
  for (const cell of cells) {
    const text = stripped(cell);
    if (!/^[+-]?[\d.,]+$/.test(text)) continue;
    if (/,(\d{1,2}|\d{4,})$/.test(text) || /\.\d{3},/.test(text)) commas++;
    else if (/\.(\d{1,2}|\d{4,})$/.test(text) || /,\d{3}\./.test(text)) points++;
  }
  return commas > points ? ',' : '.';
}

/**
 * Reads a number as spreadsheets and reports write it: `1,234`, `1.234,5`, `1 234`, `12 %`.
 * @returns null when it is none
 */
export function readNumber(cell: string, decimal: DecimalSign = '.'): number | null {
  const text = stripped(cell);
  if (!/^[+-]?[\d.,]*\d(e[+-]?\d+)?$/i.test(text)) return null;
  const value = Number(decimal === ',' ? text.replaceAll('.', '').replace(',', '.') : text.replaceAll(',', ''));
  return Number.isFinite(value) ? value : null;
}

/** Spreadsheets write a day with a time without the T, or the day first with points. */
const looseDate = /^(\d{4})[-/](\d\d?)[-/](\d\d?)(?:[ T](\d\d?):(\d\d)(?::(\d\d))?)?$/;
const dottedDate = /^(\d\d?)\.(\d\d?)\.(\d{4})(?:,? (\d\d?):(\d\d)(?::(\d\d))?)?$/;

/**
 * Reads a date as reports write it: `2026-10-02`, `2026-10-02 09:30`, `2026-10-02T09:30:00+02:00`, `02.10.2026`.
 * Without a zone it is in UTC. A day and a month with slashes can be either way round, and are no date.
 * @returns seconds since 1970; null when it is none
 */
export function readDate(cell: string): number | null {
  const text = cell.trim();
  const exact = /^\d{4}-\d\d-\d\d/.test(text) ? readW3cDate(text) : null;
  if (exact !== null) return Math.floor(exact / 1000);
  const loose = looseDate.exec(text);
  const dotted = loose ? null : dottedDate.exec(text);
  const found = loose ?? dotted;
  if (!found) return null;
  const [first, month, third, hour, minute, second] = found.slice(1).map((part) => Number(part ?? 0));
  const [year, day] = loose ? [first, third] : [third, first];
  const time = Date.UTC(year, month - 1, day, hour, minute, second);
  // The 31st of a short month is no date.
  return new Date(time).getUTCDate() === day && month <= 12 && hour < 24 ? time / 1000 : null;
}

const isEmpty = (cell: string) => /^\s*(-|–|—|n\/?a|null)?\s*$/i.test(cell);

/** A name that the selection language can write. */
export const columnWord = (header: string): string =>
  header
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '_')
    .replace(/^_+|_+$/g, '')
    .replace(/^(?=\d)/, 'n_');

const partOf = (cells: readonly string[], test: (cell: string) => boolean) =>
  cells.length ? cells.filter(test).length / cells.length : 0;

/** Gives each column a name of its own. */
function distinct(columns: readonly NumberColumn[]): NumberColumn[] {
  const used = new Set<string>();
  return columns.map(({ index, name, isDate }) => {
    const base = name || `column_${index + 1}`;
    // The end of a name tells a date from a number.
    const bare = base.endsWith(DATE_ENDING) ? base.slice(0, -DATE_ENDING.length) || 'the' : base;
    const named = (text: string) => (isDate ? text + DATE_ENDING : text);
    let own = named(bare);
    for (let n = 2; used.has(own); n++) own = named(`${bare}_${n}`);
    used.add(own);
    return { index, name: own, isDate };
  });
}

/**
 * Guesses what the columns of some rows are.
 * @param column the column with the addresses, by its name in the header or its 1-based number, when that is given
 * @returns null when no column has addresses, or the one that is given does not exist
 */
export function guessColumns(
  rows: readonly (readonly string[])[],
  column: string | null = null,
): Omit<Layout, 'delimiter'> | null {
  const sample = rows.slice(0, SAMPLE_ROWS);
  const width = Math.max(0, ...sample.map(({ length }) => length));
  const cellsOf = (index: number, from: number) =>
    sample
      .slice(from)
      .map((row) => row[index] ?? '')
      .filter((cell) => !isEmpty(cell));
  const columns = [...Array(width).keys()];
  const header = sample[0] ?? [];
  const given = column === null ? null : columnGiven(header, column);
  if (given !== null && (given < 0 || given >= width)) return null;
  const score = (index: number) =>
    partOf(cellsOf(index, 1), isAddress) + (named.test((header[index] ?? '').trim()) ? 0.5 : 0);
  const best = [...columns].sort((a, b) => score(b) - score(a))[0] ?? -1;
  const addressColumn = given ?? best;
  if (addressColumn < 0) return null;
  const first = header[addressColumn] ?? '';
  const hasHeader = !isAddress(first) && (named.test(first.trim()) || sample.length > 1 || column === first.trim());
  if (given === null && partOf(cellsOf(addressColumn, hasHeader ? 1 : 0), isAddress) < 0.5) return null;
  const decimal = guessDecimal(sample.flatMap((row) => row.filter((_, index) => index !== addressColumn)));
  const isNumeric = (index: number) => {
    const cells = cellsOf(index, hasHeader ? 1 : 0);
    return (
      index !== addressColumn && cells.length > 0 && partOf(cells, (cell) => readNumber(cell, decimal) !== null) >= 0.9
    );
  };
  const isDated = (index: number) => {
    const cells = cellsOf(index, hasHeader ? 1 : 0);
    return index !== addressColumn && cells.length > 0 && partOf(cells, (cell) => readDate(cell) !== null) >= 0.9;
  };
  const numbers = columns
    .map((index) => ({ index, isDate: !isNumeric(index) && isDated(index) }))
    .filter(({ index, isDate }) => isDate || isNumeric(index))
    .map((column) => ({ ...column, name: hasHeader ? columnWord(header[column.index] ?? '') : '' }));
  return { hasHeader, addressColumn, numbers: distinct(numbers), decimal };
}

function columnGiven(header: readonly string[], column: string): number {
  const byName = header.findIndex((cell) => cell.trim().toLowerCase() === column.trim().toLowerCase());
  return byName >= 0 || !/^\d+$/.test(column) ? byName : Number(column) - 1;
}
