import type { List } from '../lists';
import { cellOf, csvPieces, tsvPieces } from './csv';
import type { Cell } from './csv';

export const tableFormats = ['csv', 'tsv', 'json'] as const;
export type TableFormat = (typeof tableFormats)[number];

/**
 * Writes rows of a list as it is seen: as CSV (RFC 4180), as the tab-separated text that spreadsheets take from the
 * clipboard, or as JSON, an object a row.
 * @param columns names of columns, in order; those that the list lacks are left out
 */
export function* listAs(
  format: TableFormat,
  list: List,
  rows: Iterable<number>,
  columns: readonly string[],
): Generator<string> {
  const shown = list.columns
    .filter(({ name }) => columns.includes(name))
    .sort((a, b) => columns.indexOf(a.name) - columns.indexOf(b.name));
  const cells = shown.map(({ name }) => list.cells(name));
  function* table(head: Cell[]): Generator<Cell[]> {
    yield head;
    for (const row of rows) yield cells.map(({ value }) => cellOf(value(row)));
  }
  if (format === 'csv') return yield* csvPieces(table(shown.map(({ name, asked }) => asked ?? name)));
  if (format === 'tsv') return yield* tsvPieces(table(shown.map(({ label }) => label)));
  let before = '[\n';
  for (const row of rows) {
    yield (
      before +
      JSON.stringify(Object.fromEntries(shown.map(({ name, asked }, i) => [asked ?? name, cells[i].value(row)])))
    );
    before = ',\n';
  }
  yield before === '[\n' ? '[]\n' : '\n]\n';
}
