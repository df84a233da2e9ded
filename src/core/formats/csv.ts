export type Cell = string | number | boolean | null;

/** Spreadsheets take a cell that begins with one of these for a formula; a leading apostrophe keeps it a text. */
const formula = /^[=+\-@\t\r]/;

const harmless = (value: Cell): string => {
  if (value === null) return '';
  return typeof value === 'string' && formula.test(value) ? `'${value}` : String(value);
};

/** A cell of tab-separated text, which knows no quotes: breaks and tabs become spaces. */
export const plainCell = (value: Cell): string => harmless(value).replace(/[\t\r\n]+/g, ' ');

/** A field of RFC 4180, quoted where it must be. */
export function csvCell(value: Cell): string {
  const text = harmless(value);
  return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}

/** One record of RFC 4180, with its line break. Unknown (null) is an empty field. */
export const csvRow = (cells: readonly Cell[]) => csvRecord(cells.map(csvCell));
/** One record of fields that are ready. */
export const csvRecord = (fields: readonly string[]) => `${fields.join(',')}\r\n`;
