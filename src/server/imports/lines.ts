/** Files as they come: undone where they are compressed, and cut into lines. */
import { pipeline } from 'node:stream/promises';
import { createGunzip } from 'node:zlib';
import { failure, isError } from '$core/errors';
import { beginsAsZstd, largestWindow, zstdDecoder } from '$core/zstd';

/** What strangers have asked for can be anything: a log of more different addresses than this is refused. */
const MAX_ADDRESSES = 5_000_000;

/** @throws import when a file has too many different addresses to be held */
export function checkSize(addresses: number): void {
  if (addresses > MAX_ADDRESSES)
    throw failure(
      'import',
      `The file has more than ${MAX_ADDRESSES.toLocaleString('en')} different addresses. Import it in parts. Nothing was imported.`,
    );
}

/** Bytes that are undone at once. */
const PIECE = 1 << 18;
/** A line that is longer holds nothing that can be read, and is cut. */
const MAX_LINE = 1 << 16;

/** What all that a file holds may come to, undone. */
const MAX_UNFOLDED = 16 * 2 ** 30;
/** Bytes in which the head of a compressed file ends. */
const HEAD = 32;
/** What a decoder of Zstandard may be asked to remember: as much as its own program takes unasked. */
const MAX_WINDOW = 2 ** 27;

type Bytes = AsyncIterable<Uint8Array>;

const isGzip = (head: Uint8Array) => head[0] === 0x1f && head[1] === 0x8b;
/** A spreadsheet in Office Open XML is a ZIP archive. */
export const isZip = (head: Uint8Array) => head[0] === 0x50 && head[1] === 0x4b && head[2] === 3 && head[3] === 4;

async function* gunzip(source: Bytes): Bytes {
  const inflater = createGunzip({ chunkSize: PIECE });
  // What goes wrong at either end is thrown where the pieces are read; both ends are closed.
  pipeline(source, inflater).catch(() => {});
  yield* inflater as AsyncIterable<Uint8Array>;
}

async function* unzstd(source: Bytes): Bytes {
  const read = zstdDecoder();
  for await (const piece of source) yield* read(piece);
  yield* read(null);
}

/**
 * Reads the beginning of a stream.
 * @param least how much is enough: bytes of pieces, or rows of batches
 * @returns what was read, the whole stream with it, and whether that is all of it
 */
export async function peek<T extends { length: number }>(source: AsyncIterable<T>, least: number) {
  const pieces = source[Symbol.asyncIterator]();
  const held: T[] = [];
  let size = 0;
  let isAll = false;
  while (!isAll && size < least) {
    const next = await pieces.next();
    if (next.done) isAll = true;
    else {
      held.push(next.value);
      size += next.value.length;
    }
  }
  async function* whole(): AsyncGenerator<T> {
    try {
      yield* held;
      for (let next = isAll ? null : await pieces.next(); next && !next.done; next = await pieces.next())
        yield next.value;
    } finally {
      await pieces.return?.();
    }
  }
  return { held, whole: whole(), isAll };
}

/** As {@link peek}, for bytes. */
export async function peekBytes(source: Bytes, least: number): Promise<{ head: Buffer; whole: Bytes; isAll: boolean }> {
  const { held, whole, isAll } = await peek(source, least);
  return { head: Buffer.concat(held), whole, isAll };
}

/** Ends what unfolds to more than can be meant. */
async function* bounded(source: Bytes): Bytes {
  let size = 0;
  for await (const piece of source) {
    size += piece.length;
    if (size > MAX_UNFOLDED)
      throw failure(
        'import',
        `The file holds more than ${MAX_UNFOLDED / 2 ** 30} GiB. Import it in parts. Nothing was imported.`,
      );
    yield piece;
  }
}

/**
 * A file as it was before it was compressed with gzip or Zstandard.
 * @throws import when it is damaged, or holds too much
 */
export async function* decompressed(source: Bytes): Bytes {
  const { head, whole } = await peekBytes(source, HEAD);
  const isZstd = beginsAsZstd(head);
  if (isZstd && largestWindow(head.subarray(0, HEAD)) > MAX_WINDOW)
    throw failure('import', 'The file was compressed with too large a window. Compress it without --long.');
  try {
    yield* bounded(isGzip(head) ? gunzip(whole) : isZstd ? unzstd(whole) : whole);
  } catch (error) {
    const { code, message } = error as NodeJS.ErrnoException;
    if (!isGzip(head) && !isZstd) throw error;
    if (code === 'ABORT_ERR' || isError(error, 'import')) throw error;
    throw failure('import', `The compressed file is damaged or incomplete (${message}). Nothing was imported.`);
  }
}

/** A line: the bytes from `from` to `to`, and its 1-based number. The bytes hold until the next one. */
type TakeLine = (bytes: Buffer, from: number, to: number, number: number) => void;

/** Calls back for each line, without its end. */
export async function eachLine(source: Bytes, take: TakeLine): Promise<void> {
  let rest: Buffer = Buffer.alloc(0);
  let number = 0;
  const give = (bytes: Buffer, from: number, end: number) => {
    const to = end > from && bytes[end - 1] === 13 ? end - 1 : end;
    take(bytes, from, Math.min(to, from + MAX_LINE), ++number);
  };
  for await (const piece of source) {
    const bytes =
      rest.length > 0 ? Buffer.concat([rest, piece]) : Buffer.from(piece.buffer, piece.byteOffset, piece.length);
    let from = 0;
    for (let at = bytes.indexOf(10); at >= 0; at = bytes.indexOf(10, from)) {
      give(bytes, from, at);
      from = at + 1;
    }
    // A line without end is not gathered.
    rest = Buffer.from(bytes.subarray(from, bytes.length - from > 2 * MAX_LINE ? from + MAX_LINE : bytes.length));
  }
  if (rest.length > 0) give(rest, 0, rest.length);
}
