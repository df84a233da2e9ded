/** The stored form of an import, in pieces. */
import { promisify } from 'node:util';
import { pipeline } from 'node:stream/promises';
import { createInflate, inflate } from 'node:zlib';
import { and, asc, eq } from 'drizzle-orm';
import { countCells } from '$core/accessLog';
import type { HitCounts } from '$core/accessLog';
import type { ImportedSource, MatchedSource } from '$core/imports';
import type { Database } from '../database';
import { importPart } from '../database/schema';
import { parts } from './pack';
import type { PackedPart } from './pack';

const inflated = promisify(inflate);

const CHUNK_BYTES = 1 << 20;
/** Bytes of text that are undone together. */
const TEXT_BYTES = 1 << 18;

/** Stores the parts of an import, within a transaction. */
export async function writeParts(
  tx: Pick<Database, 'insert'>,
  importId: number,
  packed: readonly PackedPart[],
): Promise<void> {
  for (const { part, data } of packed)
    for (let at = 0; at === 0 || at < data.length; at += CHUNK_BYTES)
      await tx
        .insert(importPart)
        .values({ importId, part, seq: at / CHUNK_BYTES, data: Buffer.from(data.subarray(at, at + CHUNK_BYTES)) });
}

/** The pieces of a part as they are stored, one after the other. */
async function* chunksOf(db: Database, importId: number, part: string): AsyncGenerator<Buffer> {
  for (let seq = 0; ; seq++) {
    const [chunk] = await db
      .select({ data: importPart.data })
      .from(importPart)
      .where(and(eq(importPart.importId, importId), eq(importPart.part, part), eq(importPart.seq, seq)));
    if (!chunk) return;
    yield chunk.data;
  }
}

async function readPart(db: Database, importId: number, part: string): Promise<Buffer> {
  const chunks = await db
    .select({ data: importPart.data })
    .from(importPart)
    .where(and(eq(importPart.importId, importId), eq(importPart.part, part)))
    .orderBy(asc(importPart.seq));
  return chunks.length ? inflated(Buffer.concat(chunks.map(({ data }) => data))) : Buffer.alloc(0);
}

/** The addresses of an import, ascending, some thousand at a time. */
export async function* addressesOf(db: Database, importId: number): AsyncGenerator<string[]> {
  const inflater = createInflate({ chunkSize: TEXT_BYTES });
  // What goes wrong at either end is thrown where the pieces are read.
  pipeline(chunksOf(db, importId, parts.addresses), inflater).catch(() => {});
  let rest = '';
  for await (const text of inflater.setEncoding('utf8') as AsyncIterable<string>) {
    const lines = (rest + text).split('\n');
    rest = lines.pop()!;
    yield lines;
  }
}

/** The addresses of an import, ascending. */
export async function readAddresses(db: Database, importId: number): Promise<string[]> {
  const all: string[][] = [];
  for await (const some of addressesOf(db, importId)) all.push(some);
  return all.flat();
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
    if (part.startsWith(parts.column)) {
      const bytes = new Uint8Array(await readPart(db, importId, part));
      columns[part.slice(parts.column.length)] = new Float64Array(bytes.buffer, bytes.byteOffset, bytes.length / 8);
    }
  return { addresses: await readAddresses(db, importId), columns };
}

/** The cells of one address of a log, by its number among the addresses. */
async function readCells(db: Database, importId: number, at: number): Promise<Uint32Array> {
  const u32 = async (part: string) => {
    const bytes = new Uint8Array(await readPart(db, importId, part));
    return new Uint32Array(bytes.buffer, bytes.byteOffset, bytes.length / 4);
  };
  const ends = await u32(parts.cellEnds);
  return (await u32(parts.cells)).slice(at === 0 ? 0 : ends[at - 1], ends[at]);
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
