/** Reads an exported list: CSV and its like, JSON lines, a spreadsheet, or one address a line. */
import { pipeline } from 'node:stream/promises';
import { parse } from 'csv-parse';
import { guessColumns, guessDelimiter, readDate, readNumber, detectEncoding, SAMPLE_ROWS } from '$core/addressList';
import type { Layout } from '$core/addressList';
import { ROWS_COLUMN } from '$core/imports';
import type { ListChoices, Reading } from './reading';
import { checkSize, isZip, peek, peekBytes } from './lines';
import { readSpreadsheet, SAVE_AS_CSV } from './spreadsheet';
import { failure } from '$core/errors';

/** A row of a list, with the line at which it begins. */
interface Row {
  cells: string[];
  line: number;
}
type Rows = AsyncIterable<Row[]>;

/** Bytes of which the layout of a file is guessed. */
const HEAD = 1 << 18;
const MAX_RECORD = 1 << 18;
/** Spreadsheets are read whole. */
const MAX_SHEET = 100 << 20;
const BATCH = 2000;

async function* decoded(bytes: AsyncIterable<Uint8Array>, encoding: string): AsyncGenerator<string> {
  const decoder = new TextDecoder(encoding);
  for await (const piece of bytes) yield decoder.decode(piece, { stream: true });
  yield decoder.decode();
}

async function* textRows(texts: AsyncIterable<string>): Rows {
  let rest = '';
  let line = 0;
  for await (const text of texts) {
    const lines = (rest + text).split(/\r\n|\n|\r(?!$)/);
    rest = lines.pop()!.slice(-MAX_RECORD);
    // Of a line without end nothing is told, however long it goes on.
    if (lines.length) yield lines.map((cell) => ({ cells: [cell], line: ++line }));
  }
  if (rest.trim()) yield [{ cells: [rest], line: ++line }];
}

const breaksIn = (cells: readonly string[]) =>
  cells.reduce((n, cell) => n + (cell.includes('\n') ? cell.split('\n').length - 1 : 0), 0);

async function* csvRows(texts: AsyncIterable<string>, delimiter: string, reading: Reading): Rows {
  const parser = parse({
    delimiter,
    bom: true,
    relax_column_count: true,
    relax_quotes: true,
    max_record_size: MAX_RECORD,
    skip_records_with_error: true,
    on_skip: (error) => {
      if (!error) return;
      reading.count();
      reading.reject(Number(error.lines) || 0, { code: 'row_unreadable', detail: error.code });
    },
  });
  pipeline(texts, parser).catch(() => {});
  let batch: Row[] = [];
  // The parser would tell the line too, at the cost of half of its time.
  let line = 1;
  for await (const cells of parser as AsyncIterable<string[]>) {
    batch.push({ cells, line });
    line += 1 + breaksIn(cells);
    if (batch.length < BATCH) continue;
    yield batch;
    batch = [];
  }
  yield batch;
}

const cellText = (value: unknown): string =>
  value === null || value === undefined
    ? ''
    : value instanceof Date
      ? value.toISOString()
      : typeof value === 'object'
        ? ''
        : String(value as string | number | boolean);

/** JSON lines as a table: the names of the first object are its columns. */
async function* jsonRows(texts: AsyncIterable<string>, reading: Reading): Rows {
  let names: string[] | null = null;
  for await (const rows of textRows(texts)) {
    const batch: Row[] = [];
    for (const { cells, line } of rows) {
      if (!cells[0].trim()) continue;
      let value: unknown;
      try {
        value = JSON.parse(cells[0]);
      } catch (error) {
        reading.count();
        reading.reject(line, { code: 'row_unreadable', detail: (error as Error).message });
        continue;
      }
      const fields = Object.fromEntries(Object.entries(Object(value) as Record<string, unknown>));
      if (!names) batch.push({ cells: (names = Object.keys(fields)), line });
      batch.push({ cells: names.map((name) => cellText(fields[name])), line });
    }
    if (batch.length) yield batch;
  }
}

async function* sheetRows(bytes: AsyncIterable<Uint8Array>): Rows {
  const pieces: Uint8Array[] = [];
  let size = 0;
  for await (const piece of bytes) {
    size += piece.length;
    if (size > MAX_SHEET)
      throw failure('import', `The spreadsheet is larger than ${MAX_SHEET >> 20} MiB. ${SAVE_AS_CSV}`);
    pieces.push(piece);
  }
  const rows = await readSpreadsheet(Buffer.concat(pieces));
  yield rows.map((row, i) => ({ cells: row.map(cellText), line: i + 1 }));
}

/** The rows of a file, and how it is laid out. */
async function open(
  reading: Reading,
  bytes: AsyncIterable<Uint8Array>,
): Promise<{ rows: Rows; delimiter: Layout['delimiter'] }> {
  const { head, whole, isAll } = await peekBytes(bytes, HEAD);
  if (isZip(head)) return { rows: sheetRows(whole), delimiter: null };
  const encoding = detectEncoding(head, isAll);
  const sample = new TextDecoder(encoding).decode(head);
  const texts = decoded(whole, encoding);
  if (sample.trimStart().startsWith('{')) return { rows: jsonRows(texts, reading), delimiter: null };
  const delimiter = guessDelimiter(sample.split(/\r\n|\n|\r/).slice(0, SAMPLE_ROWS));
  return { rows: delimiter ? csvRows(texts, delimiter, reading) : textRows(texts), delimiter };
}

/** The first rows of a list, and what is made of its columns. */
export interface ListPreview {
  layout: Layout;
  rows: string[][];
}

/** @throws import when no column has addresses */
function layoutOf(rows: readonly Row[], delimiter: Layout['delimiter'], { column }: ListChoices): Layout {
  const cells = rows.filter(({ cells }) => cells.some((cell) => cell.trim())).map(({ cells }) => cells);
  const guessed = guessColumns(cells, column);
  if (guessed) return { delimiter, ...guessed };
  // Paths without a slash, one per line, are addresses all the same.
  const isPath = (row: readonly string[]) => row.length === 1 && /^[\x21-\x7e]+$/.test(row[0].trim());
  if (column === null && cells.length > 0 && cells.every(isPath))
    return { delimiter, hasHeader: false, addressColumn: 0, numbers: [], decimal: '.' };
  const header = cells[0]?.filter((cell) => cell.trim()).slice(0, 20) ?? [];
  const known = header.length ? ` The file has these: ${header.join(', ')}.` : ' The file is empty.';
  throw failure(
    'import',
    column === null ? `No column of the file holds addresses.${known}` : `The file has no column “${column}”.${known}`,
  );
}

const PREVIEW_ROWS = 8;

/** Reads the beginning of a list and says how it would be imported. @throws import */
export async function previewList(
  reading: Reading,
  bytes: AsyncIterable<Uint8Array>,
  choices: ListChoices,
): Promise<ListPreview> {
  const { rows, delimiter } = await open(reading, bytes);
  const { held, whole } = await peek(rows, SAMPLE_ROWS);
  // No more is read of it.
  await whole.return(undefined);
  const sample = held.flat();
  return {
    layout: layoutOf(sample, delimiter, choices),
    rows: sample.slice(0, PREVIEW_ROWS).map(({ cells }) => cells.slice(0, 30).map((cell) => cell.slice(0, 200))),
  };
}

/**
 * Reads a list: how many rows name each address, the sums of its numbers, and the latest of its dates.
 * @throws import
 */
export async function readList(reading: Reading, bytes: AsyncIterable<Uint8Array>, choices: ListChoices) {
  const { rows, delimiter } = await open(reading, bytes);
  const { held, whole } = await peek(rows, SAMPLE_ROWS);
  const { hasHeader, addressColumn, numbers, decimal } = layoutOf(held.flat(), delimiter, choices);
  const byAddress = new Map<string, number>();
  const counts = growingColumn(0);
  const sums = numbers.map(() => growingColumn(NaN));
  let isHeader = hasHeader;
  for await (const batch of whole)
    for (const { cells, line } of batch) {
      if (cells.every((cell) => cell.trim() === '')) continue;
      if (isHeader) {
        isHeader = false;
        continue;
      }
      reading.count();
      const cell = cells[addressColumn]?.trim() ?? '';
      const found = cell ? reading.resolve(cell) : ({ code: 'no_address_in_row' } as const);
      if ('code' in found) {
        reading.reject(line, found);
        continue;
      }
      let at = byAddress.get(found.address);
      if (at === undefined) {
        byAddress.set(found.address, (at = byAddress.size));
        checkSize(byAddress.size);
      }
      counts.set(at, counts.at(at) + 1);
      numbers.forEach(({ index, isDate }, i) => {
        const cell = cells[index] ?? '';
        const value = isDate ? readDate(cell) : readNumber(cell, decimal);
        if (value === null) return;
        const before = sums[i].at(at);
        sums[i].set(at, Number.isNaN(before) ? value : isDate ? Math.max(before, value) : before + value);
      });
    }
  const addresses = [...byAddress.keys()].sort();
  const order = new Uint32Array(addresses.length);
  for (let i = 0; i < order.length; i++) order[i] = byAddress.get(addresses[i])!;
  return {
    addresses,
    columns: Object.fromEntries([
      [ROWS_COLUMN, counts.ordered(order)],
      ...numbers.map(({ name }, i) => [name === ROWS_COLUMN ? 'rows_given' : name, sums[i].ordered(order)] as const),
    ]),
    cells: null,
  };
}

const BLOCK_BITS = 16;

/** A column of numbers that grows a block at a time, without being copied; what was not set is `unset`. */
function growingColumn(unset: number) {
  const blocks: Float64Array[] = [];
  const at = (i: number) => blocks[i >> BLOCK_BITS]?.[i & ((1 << BLOCK_BITS) - 1)] ?? unset;
  return {
    at,
    set: (i: number, value: number): void => {
      const block = i >> BLOCK_BITS;
      while (blocks.length <= block) blocks.push(new Float64Array(1 << BLOCK_BITS).fill(unset));
      blocks[block][i & ((1 << BLOCK_BITS) - 1)] = value;
    },
    ordered: (order: Uint32Array): Float64Array => {
      const column = new Float64Array(order.length);
      for (let i = 0; i < order.length; i++) column[i] = at(order[i]);
      return column;
    },
  };
}
