/** Reads a file of edits: CSV (RFC 4180) with a column for each part of an edit. */
import { CsvError, parse } from 'csv-parse/sync';
import type { Message } from '../messages';
import { editFields, editOps } from './edit';
import type { Edit } from './edit';

/** An edit with the line of the file that it begins at. */
export interface FileEdit {
  line: number;
  edit: Edit;
}
export interface FileFault {
  line: number;
  fault: Message;
}

/** What is written before a text that a spreadsheet would take for a formula. */
const unescaped = (text: string) => text.replace(/^'(?=[=+\-@\t\r])/, '');

/** The records of a file, each with the line that it begins at. @throws CsvError */
function recordsOf(text: string): { line: number; cells: string[] }[] {
  const options = { bom: true, relax_column_count: true, info: true } as const;
  const parsed = parse(text, options) as unknown as { record: string[]; info: { lines: number } }[];
  let last = 0;
  return parsed.map(({ record, info }) => {
    const line = last + 1;
    // The last record may end without a line break.
    last = info.lines;
    return { line, cells: record };
  });
}

/** Reads edits. What cannot be read of them is told by line. */
export function readEdits(text: string): { edits: FileEdit[]; faults: FileFault[] } {
  let records: ReturnType<typeof recordsOf>;
  try {
    records = recordsOf(text);
  } catch (error) {
    if (!(error instanceof CsvError)) throw error;
    return {
      edits: [],
      faults: [{ line: Number(error.lines) || 1, fault: { code: 'edits_csv', detail: error.code } }],
    };
  }
  const [head, ...rows] = records;
  const names = (head?.cells ?? []).map((name) => name.trim().toLowerCase());
  const places = editFields.map((name) => names.indexOf(name));
  const missing = (['op', 'source'] as const).filter((name) => !names.includes(name));
  if (missing.length)
    return { edits: [], faults: [{ line: 1, fault: { code: 'edits_columns', missing: [...missing] } }] };
  const edits: FileEdit[] = [];
  const faults: FileFault[] = [];
  for (const { line, cells } of rows) {
    if (cells.every((cell) => cell.trim() === '')) continue;
    const parts = Object.fromEntries(
      editFields.map((name, i) => [name, unescaped(cells[places[i]] ?? '')]),
    ) as unknown as Edit;
    const op = editOps.find((name) => name === String(parts.op).trim());
    if (op) edits.push({ line, edit: { ...parts, op, source: parts.source.trim(), target: parts.target.trim() } });
    else faults.push({ line, fault: { code: 'edit_op', text: parts.op, known: [...editOps] } });
  }
  return { edits, faults };
}
