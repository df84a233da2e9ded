export type Cell = string | number | boolean | null;

/** Spreadsheets take a cell that begins with one of these for a formula; a leading apostrophe keeps it a text. */
const formula = /^[=+\-@\t\r]/;

function cell(value: Cell): string {
  if (value === null) return '';
  const text = typeof value === 'string' && formula.test(value) ? `'${value}` : String(value);
  return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}

/** One record of RFC 4180, with its line break. Unknown (null) is an empty field. */
export const csvRow = (cells: readonly Cell[]) => `${cells.map(cell).join(',')}\r\n`;
