/** Reads a spreadsheet in Office Open XML (ECMA-376), a ZIP archive, within bounds that hold before it is unfolded. */
import { unzipSync } from 'fflate';
import { readSheet } from 'read-excel-file/universal';
import { failure, isError } from '$core/errors';

/** What the files of the archive may come to, and the cells of a sheet, empty ones among them. */
const MAX_UNFOLDED = 200 << 20;
const MAX_CELLS = 10_000_000;
const MAX_FILES = 10_000;

export const SAVE_AS_CSV = 'Save it as CSV and import that.';
const tooLarge = (what: string) => failure('import', `The spreadsheet ${what}. ${SAVE_AS_CSV}`);

/** The number of a column by its letters: A is 1. */
const columnOf = (letters: string) =>
  [...letters].reduce((number, letter) => number * 26 + letter.charCodeAt(0) - 64, 0);

/** How many cells a sheet has from the first to the last of them: those between are made, though nothing is in them. */
function cellsOf(sheet: string): number {
  let [rows, columns] = [0, 0];
  for (const [, letters, row] of sheet.matchAll(/\br\s*=\s*["']([A-Z]{1,3})(\d{1,7})["']/g)) {
    rows = Math.max(rows, Number(row));
    columns = Math.max(columns, columnOf(letters));
  }
  return rows * columns;
}

/** @throws import when the archive unfolds to too much, by what it says of its files: no more of them is unfolded */
function checkSize(bytes: Uint8Array): void {
  let [files, unfolded] = [0, 0];
  const sheets = unzipSync(bytes, {
    filter: ({ name, originalSize }) => {
      unfolded += originalSize;
      if (++files > MAX_FILES) throw tooLarge(`holds more than ${MAX_FILES.toLocaleString('en')} files`);
      if (unfolded > MAX_UNFOLDED) throw tooLarge(`holds more than ${MAX_UNFOLDED >> 20} MiB`);
      return /worksheets\/[^/]*\.xml$/i.test(name);
    },
  });
  for (const sheet of Object.values(sheets))
    if (cellsOf(new TextDecoder().decode(sheet)) > MAX_CELLS)
      throw tooLarge(`has more than ${MAX_CELLS.toLocaleString('en')} cells, with the empty ones between the others`);
}

/** The rows of the first sheet, with their values. @throws import */
export async function readSpreadsheet(bytes: Buffer): Promise<unknown[][]> {
  try {
    checkSize(bytes);
    const { buffer, byteOffset, byteLength } = bytes;
    return (await readSheet(buffer.slice(byteOffset, byteOffset + byteLength) as ArrayBuffer)) as unknown[][];
  } catch (error) {
    if (isError(error, 'import')) throw error;
    throw failure('import', `The spreadsheet cannot be read (${(error as Error).message}). ${SAVE_AS_CSV}`);
  }
}
