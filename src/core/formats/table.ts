import type { List } from '../lists';
import type { FactValue } from '../snapshot';
import { csvRow, plainCell } from './csv';

export const tableFormats = ['csv', 'tsv', 'json'] as const;
export type TableFormat = (typeof tableFormats)[number];

const joined = (value: FactValue) =>
  Array.isArray(value) ? value.join('|') : (value as string | number | boolean | null);

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
  const line =
    format === 'csv' ? csvRow : (values: Parameters<typeof csvRow>[0]) => `${values.map(plainCell).join('\t')}\r\n`;
  if (format !== 'json') {
    yield line(shown.map(({ name, label }) => (format === 'csv' ? name : label)));
    for (const row of rows) yield line(cells.map(({ value }) => joined(value(row))));
    return;
  }
  let before = '[\n';
  for (const row of rows) {
    yield before + JSON.stringify(Object.fromEntries(shown.map(({ name }, i) => [name, cells[i].value(row)])));
    before = ',\n';
  }
  yield before === '[\n' ? '[]\n' : '\n]\n';
}
