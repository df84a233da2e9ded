/** Bodies of answers: taken in up to a limit, and decoded up to the same limit. */
import type { Transform } from 'node:stream';
import { constants, createBrotliDecompress, createGunzip, createInflate, createInflateRaw } from 'node:zlib';
import type { BrotliOptions, ZlibOptions } from 'node:zlib';
import { gunzipped } from './gunzip';
import { unzstd } from './zstd';

export interface Body {
  bytes: Buffer;
  /** True when there was more than the limit. */
  truncated: boolean;
}

/** Takes in a body, and closes the connection when there is more than `limit`. */
export async function takeIn(body: AsyncIterable<Buffer> & { destroy: () => unknown }, limit: number): Promise<Body> {
  const pieces: Buffer[] = [];
  let size = 0;
  let truncated = false;
  for await (const piece of body) {
    truncated = size + piece.length > limit;
    pieces.push(truncated ? piece.subarray(0, limit - size) : piece);
    size += piece.length;
    if (truncated) {
      body.destroy();
      break;
    }
  }
  return { bytes: pieces.length === 1 ? pieces[0] : Buffer.concat(pieces), truncated };
}

interface Coding {
  open: (options: ZlibOptions & BrotliOptions) => Transform;
  flush: number;
}
const gzip: Coding = { open: createGunzip, flush: constants.Z_SYNC_FLUSH };
const brotli: Coding = { open: createBrotliDecompress, flush: constants.BROTLI_OPERATION_FLUSH };
const wrapped: Coding = { open: createInflate, flush: constants.Z_SYNC_FLUSH };
const bare: Coding = { open: createInflateRaw, flush: constants.Z_SYNC_FLUSH };

function codingOf(name: string, body: Buffer): Coding | null {
  if (name === 'gzip' || name === 'x-gzip') return gzip;
  if (name === 'br') return brotli;
  // “deflate” is sent both with and without the zlib wrapper; its first nibble tells (RFC 1950 §2.2).
  return name === 'deflate' ? ((body[0] & 15) === 8 ? wrapped : bare) : null;
}

const CHUNK = 1 << 16;

async function unzip(body: Buffer, { open, flush }: Coding, limit: number): Promise<Body> {
  // A body that ends early is read as far as it goes.
  const decoder = open({ finishFlush: flush, chunkSize: CHUNK });
  decoder.end(body);
  try {
    return await takeIn(decoder, limit);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'Z_DATA_ERROR' && open === createGunzip)
      return unzipLeniently(body, limit);
    throw error;
  }
}

/** Little of what came before a fault is lost with it. */
const FINE_SLICE = 256;

/**
 * What can be had of a gzip that breaks, or that other bytes follow.
 * @throws Error with a code of zlib when that is nothing
 */
async function unzipLeniently(body: Buffer, limit: number): Promise<Body> {
  const pieces: Buffer[] = [];
  let size = 0;
  let broken = false;
  const whole = (async function* () {
    yield await Promise.resolve(body);
  })();
  try {
    for await (const piece of gunzipped(whole, FINE_SLICE)) {
      pieces.push(piece.subarray(0, limit - size));
      size += piece.length;
      if (size > limit) break;
    }
  } catch (error) {
    if (size === 0) throw error;
    broken = true;
  }
  return { bytes: Buffer.concat(pieces), truncated: broken || size > limit };
}

/** Codings that are undone one after the other, at most. */
const MAX_CODINGS = 3;

/**
 * Undoes the content codings of a body (RFC 9110 §8.4). Codings that are not known are left as they are.
 * @throws Error with a code of zlib when the body is not what it says
 */
export async function decodeBody(body: Body, contentEncoding: string | null, limit: number): Promise<Body> {
  const names = (contentEncoding ?? '')
    .toLowerCase()
    .split(',')
    .map((name) => name.trim());
  let decoded = body;
  for (const name of names.reverse().slice(0, MAX_CODINGS)) {
    if (decoded.bytes.length === 0) break;
    const coding = codingOf(name, decoded.bytes);
    const next =
      name === 'zstd'
        ? await unzstd(decoded.bytes, limit)
        : coding
          ? await unzip(decoded.bytes, coding, limit)
          : decoded;
    decoded = { bytes: next.bytes, truncated: next.truncated || decoded.truncated };
  }
  return decoded;
}
