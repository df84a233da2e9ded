/** Undoes gzip as browsers do: what follows the last member is passed over, what came before a fault is given. */
import { constants, createInflateRaw } from 'node:zlib';

/** RFC 1952 §2.3.1: what the flags of a member's header say. */
const FLAG_HEADER_CRC = 2;
const FLAG_EXTRA = 4;
const FLAG_NAME = 8;
const FLAG_COMMENT = 16;
const FIXED_HEADER = 10;
/** CRC-32 and size behind each member. */
const TRAILER = 8;
/** A header that is longer is none. */
const MAX_HEADER = 1 << 16;
/**
 * Compressed bytes that are undone together: a few can stand for a thousand times as many, and a fault takes them all.
 */
const SLICE = 4096;

const beginsAsGzip = (bytes: Uint8Array) => bytes[0] === 0x1f && bytes[1] === 0x8b;

/**
 * How long the header of a member is; null when more bytes are needed to tell.
 * @throws Error `Z_DATA_ERROR` when it is none
 */
function headerLength(bytes: Buffer): number | null {
  const isCut = bytes.length < FIXED_HEADER;
  const method = [0x1f, 0x8b, 8];
  if (method.some((byte, i) => i < bytes.length && bytes[i] !== byte)) throw notGzip();
  if (isCut) return null;
  const flags = bytes[3];
  let at = FIXED_HEADER;
  if (flags & FLAG_EXTRA) {
    if (bytes.length < at + 2) return null;
    at += 2 + bytes.readUInt16LE(at);
  }
  for (const flag of [FLAG_NAME, FLAG_COMMENT]) {
    if (!(flags & flag)) continue;
    const end = bytes.indexOf(0, at);
    if (end < 0) return null;
    at = end + 1;
  }
  if (flags & FLAG_HEADER_CRC) at += 2;
  return at <= bytes.length ? at : null;
}

const notGzip = () => Object.assign(new Error('The body is not gzip.'), { code: 'Z_DATA_ERROR' });

/** Bytes that come in pieces, of which what was not used can be put back. */
function pieces(source: AsyncIterable<Buffer>, slice: number) {
  const from = source[Symbol.asyncIterator]();
  let held: Buffer = Buffer.alloc(0);
  return {
    /** At least one byte; null at the end. */
    async next(): Promise<Buffer | null> {
      while (held.length === 0) {
        const next = await from.next();
        if (next.done) return null;
        held = next.value;
      }
      const piece = held.subarray(0, slice);
      held = held.subarray(piece.length);
      return piece;
    },
    putBack: (bytes: Buffer) => void (held = held.length ? Buffer.concat([bytes, held]) : bytes),
    close: () => from.return?.(),
  };
}

type Pieces = ReturnType<typeof pieces>;

/** Passes the header of a member. @returns false at the end of what came */
async function passHeader(input: Pieces): Promise<boolean> {
  let header: Buffer = Buffer.alloc(0);
  for (let piece; (piece = await input.next());) {
    header = Buffer.concat([header, piece]);
    const length = headerLength(header);
    if (length === null && header.length > MAX_HEADER) throw notGzip();
    if (length === null) continue;
    input.putBack(header.subarray(length));
    return true;
  }
  return false;
}

async function passTrailer(input: Pieces): Promise<void> {
  for (let left = TRAILER, piece; left > 0 && (piece = await input.next());) {
    if (piece.length > left) input.putBack(piece.subarray(left));
    left -= piece.length;
  }
}

/** Gives the content of one member. */
async function* inflated(input: Pieces): AsyncGenerator<Buffer> {
  const inflater = createInflateRaw({ finishFlush: constants.Z_SYNC_FLUSH });
  const given: Buffer[] = [];
  let isOver = false;
  inflater.on('data', (piece: Buffer) => given.push(piece));
  inflater.on('end', () => (isOver = true));
  // A write that fails is never called back.
  const failed = new Promise<Error>((resolve) => inflater.on('error', resolve));
  try {
    for (let fed = 0, piece; !isOver && (piece = await input.next());) {
      const written = new Promise<null>((resolve) => inflater.write(piece, () => resolve(null)));
      const failure = await Promise.race([written, failed]);
      fed += piece.length;
      yield* given.splice(0);
      if (failure) throw failure;
      const unused = fed - inflater.bytesWritten;
      if (unused === 0) continue;
      input.putBack(piece.subarray(piece.length - unused));
      break;
    }
  } finally {
    inflater.destroy();
  }
}

/**
 * Undoes gzip (RFC 1952) piece by piece, however many members there are.
 * @param slice compressed bytes that are undone together
 * @throws Error with a code of zlib where the data is broken, after all that came before was given, and what `source`
 *   throws
 */
export async function* gunzipped(source: AsyncIterable<Buffer>, slice = SLICE): AsyncGenerator<Buffer> {
  const input = pieces(source, slice);
  try {
    if (!(await passHeader(input))) throw notGzip();
    for (;;) {
      yield* inflated(input);
      await passTrailer(input);
      try {
        if (!(await passHeader(input))) return;
      } catch {
        // Bytes that are no further member.
        return;
      }
    }
  } finally {
    await input.close();
  }
}

/**
 * A body as it comes, undone when it begins as gzip does, whatever its name and headers say.
 * @param slice as {@link gunzipped} takes it
 */
export async function* unzipped(body: AsyncIterable<Buffer>, slice = SLICE): AsyncGenerator<Buffer> {
  const pieces = body[Symbol.asyncIterator]();
  const first = await pieces.next();
  if (first.done) return;
  const whole = (async function* () {
    yield first.value;
    for (let next = await pieces.next(); !next.done; next = await pieces.next()) yield next.value;
  })();
  yield* beginsAsGzip(first.value) ? gunzipped(whole, slice) : whole;
}
