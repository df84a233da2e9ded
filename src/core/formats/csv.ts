/** CSV (RFC 4180) and tab-separated text, written in pieces. */
import { stringify } from 'csv-stringify/browser/esm/sync';
import { isMessage, sentence } from '../messages';
import type { CellValue } from '../lists';

export type Cell = string | number | boolean | null;

/** A value as a file has it: unknown is empty, sets are joined, messages are sentences. */
export function cellOf(value: CellValue): Cell {
  if (Array.isArray(value)) return value.join('|');
  return isMessage(value) ? sentence(value) : (value as Cell);
}

const csv = {
  record_delimiter: 'windows',
  // Spreadsheets would take such a cell for a formula: an apostrophe before it keeps it a text.
  escape_formulas: true,
  quoted_match: /[\r\n]/,
  cast: { boolean: String },
} as const;

/** Rows that are written together. */
const BATCH = 500;

function* inBatches<T>(rows: Iterable<T>): Generator<T[]> {
  let batch: T[] = [];
  for (const row of rows) {
    if (batch.push(row) < BATCH) continue;
    yield batch;
    batch = [];
  }
  if (batch.length) yield batch;
}

/** Writes records as CSV, some hundred to a piece. Unknown (null) is an empty field. */
export function* csvPieces(rows: Iterable<readonly Cell[]>): Generator<string> {
  for (const batch of inBatches(rows)) yield stringify(batch as Cell[][], csv);
}

/** As {@link csvPieces}, for the clipboard: tab-separated text knows no quotes, so breaks and tabs become spaces. */
export function* tsvPieces(rows: Iterable<readonly Cell[]>): Generator<string> {
  const plain = (cell: Cell) => (typeof cell === 'string' ? cell.replace(/[\t\r\n]+/g, ' ') : cell);
  for (const batch of inBatches(rows))
    yield stringify(
      batch.map((row) => row.map(plain)),
      { ...csv, delimiter: '\t', quote: '', escape: '' },
    );
}
