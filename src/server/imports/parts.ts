/** The stored form of an import: columns, deflated, in pieces. */
import { promisify } from 'node:util';
import { createDeflate, deflate, inflate } from 'node:zlib';
import { and, asc, eq } from 'drizzle-orm';
import { countCells } from '$core/accessLog';
import type { HitCounts, Hits } from '$core/accessLog';
import type { ImportedSource, MatchedSource } from '$core/imports';
import { inRuns } from '../database';
import type { Database } from '../database';
import { importPart } from '../database/schema';

const deflated = promisify(deflate);
const inflated = promisify(inflate);

const CHUNK_BYTES = 1 << 20;
const LEVEL = 3;
const LINES = 10_000;
const ADDRESSES = 'addresses';
const COLUMN = 'column.';
/** Cells of days and statuses of a log: for each address where its cells end, and the cells with their hits in turn. */
const CELLS = 'cells';
const CELL_ENDS = 'cells.ends';

/** What an import holds. */
export interface ImportContent extends Pick<ImportedSource, 'addresses' | 'columns'> {
  /** Of a log, the days and statuses of its hits. */
  cells: Pick<Hits, 'cells' | 'ends'> | null;
}

const bytesOf = ({ buffer, byteOffset, byteLength }: ArrayBufferView) =>
  Buffer.from(buffer as ArrayBuffer, byteOffset, byteLength);

/**
 * Texts that hold no line breaks, one per line, deflated some at a time: a million of them are not joined as one text.
 */
async function deflatedLines(texts: readonly string[]): Promise<Buffer> {
  const deflater = createDeflate({ level: LEVEL });
  const packed: Buffer[] = [];
  deflater.on('data', (piece: Buffer) => packed.push(piece));
  const ended = new Promise((resolve, reject) => deflater.once('end', resolve).once('error', reject));
  for (const run of inRuns(texts, LINES))
    if (!deflater.write(`${run.join('\n')}\n`)) await new Promise((resolve) => deflater.once('drain', resolve));
  deflater.end();
  await ended;
  return Buffer.concat(packed);
}

/** Stores what an import holds, within a transaction. */
export async function writeParts(
  tx: Pick<Database, 'insert'>,
  importId: number,
  { addresses, columns, cells }: ImportContent,
): Promise<void> {
  const store = async (part: string, packed: Buffer) => {
    for (let seq = 0; seq === 0 || seq * CHUNK_BYTES < packed.length; seq++)
      await tx
        .insert(importPart)
        .values({ importId, part, seq, data: packed.subarray(seq * CHUNK_BYTES, (seq + 1) * CHUNK_BYTES) });
  };
  const write = async (part: string, bytes: Buffer) => store(part, await deflated(bytes, { level: LEVEL }));
  await store(ADDRESSES, await deflatedLines(addresses));
  for (const [name, column] of Object.entries(columns)) await write(COLUMN + name, bytesOf(column));
  if (!cells) return;
  await write(CELL_ENDS, bytesOf(cells.ends));
  await write(CELLS, bytesOf(cells.cells));
}

async function readPart(db: Database, importId: number, part: string): Promise<Buffer> {
  const chunks = await db
    .select({ data: importPart.data })
    .from(importPart)
    .where(and(eq(importPart.importId, importId), eq(importPart.part, part)))
    .orderBy(asc(importPart.seq));
  return chunks.length ? inflated(Buffer.concat(chunks.map(({ data }) => data))) : Buffer.alloc(0);
}

/** The addresses of an import, ascending. */
export async function readAddresses(db: Database, importId: number): Promise<string[]> {
  const text = (await readPart(db, importId, ADDRESSES)).toString();
  return text === '' ? [] : text.slice(0, -1).split('\n');
}

/** The addresses of an import and its columns. */
export async function readContent(
  db: Database,
  importId: number,
): Promise<Pick<ImportedSource, 'addresses' | 'columns'>> {
  const names = await db
    .selectDistinct({ part: importPart.part })
    .from(importPart)
    .where(eq(importPart.importId, importId));
  const columns: ImportedSource['columns'] = {};
  for (const { part } of names)
    if (part.startsWith(COLUMN)) {
      const bytes = new Uint8Array(await readPart(db, importId, part));
      columns[part.slice(COLUMN.length)] = new Float64Array(bytes.buffer, bytes.byteOffset, bytes.length / 8);
    }
  return { addresses: await readAddresses(db, importId), columns };
}

/** The cells of one address of a log, by its number among the addresses. */
async function readCells(db: Database, importId: number, at: number): Promise<Uint32Array> {
  const u32 = async (part: string) => {
    const bytes = new Uint8Array(await readPart(db, importId, part));
    return new Uint32Array(bytes.buffer, bytes.byteOffset, bytes.length / 4);
  };
  const ends = await u32(CELL_ENDS);
  return (await u32(CELLS)).slice(at === 0 ? 0 : ends[at - 1], ends[at]);
}

/** The hits of a page in the logs that count for its crawl, by status and day; null when none has it. */
export async function hitsOfPage(
  db: Database,
  imports: readonly MatchedSource[],
  page: number,
): Promise<HitCounts | null> {
  const cells: number[] = [];
  for (const { id, kind, pages } of imports) {
    const at = kind === 'log' ? pages.indexOf(page) : -1;
    if (at >= 0) cells.push(...(await readCells(db, id, at)));
  }
  return cells.length ? countCells(cells) : null;
}
