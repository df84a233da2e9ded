/** What an import holds, packed as it is stored: columns, deflated. */
import { promisify } from 'node:util';
import { createDeflate, deflate } from 'node:zlib';
import type { Hits } from '$core/accessLog';
import type { ImportedSource } from '$core/imports';
import { inRuns } from '../database/runs';

const deflated = promisify(deflate);

const LEVEL = 3;
const LINES = 10_000;
/** The names of the parts. Of a log, cells of days and statuses: where those of each address end, and all in turn. */
export const parts = { addresses: 'addresses', column: 'column.', cells: 'cells', cellEnds: 'cells.ends' } as const;

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

/** A part of an import as it is stored, deflated. */
export interface PackedPart {
  part: string;
  data: Uint8Array;
}

/** Packs what an import holds. */
export async function packParts({ addresses, columns, cells }: ImportContent): Promise<PackedPart[]> {
  const packed: PackedPart[] = [{ part: parts.addresses, data: await deflatedLines(addresses) }];
  const pack = async (part: string, bytes: Buffer) =>
    packed.push({ part, data: await deflated(bytes, { level: LEVEL }) });
  for (const [name, column] of Object.entries(columns)) await pack(parts.column + name, bytesOf(column));
  if (!cells) return packed;
  await pack(parts.cellEnds, bytesOf(cells.ends));
  await pack(parts.cells, bytesOf(cells.cells));
  return packed;
}
