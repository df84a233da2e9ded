/** Zstandard (RFC 8878), undone piece by piece. */
import { Decompress } from 'fzstd';

/** How Zstandard begins (RFC 8878 §3.1.1). */
const MAGIC = 0xfd2fb528;
/** Frames that decoders pass over begin with this, but for the last four bits (§3.1.2). */
const SKIPPABLE = 0x184d2a50;
const BLOCK_HEAD = 3;
/** Bytes that are undone together: four of them can stand for 128 KiB. */
const SLICE = 1024;
/** A block that is one byte, repeated (§3.1.1.2.2). */
const RUN_BLOCK = 1;

export const beginsAsZstd = (bytes: Uint8Array): boolean => bytes.length >= 4 && littleEndian(bytes, 0, 4) === MAGIC;

function littleEndian(bytes: Uint8Array, at: number, length: number): number {
  let value = 0;
  for (let i = length - 1; i >= 0; i--) value = value * 256 + (bytes[at + i] ?? 0);
  return value;
}

/**
 * How much memory a decoder needs for what goes before a block, in bytes: the largest window of all frames
 * (§3.1.1.1.2), as far as the bytes hold them.
 */
export function largestWindow(bytes: Uint8Array): number {
  let largest = 0;
  for (let at = 0; at + 5 < bytes.length;) {
    const magic = littleEndian(bytes, at, 4);
    if (magic - (magic % 16) === SKIPPABLE) {
      at += 8 + littleEndian(bytes, at + 4, 4);
      continue;
    }
    if (magic !== MAGIC) break;
    const flags = bytes[at + 4];
    const isSingle = (flags >> 5) % 2 === 1;
    const dictionaryBytes = [0, 1, 2, 4][flags % 4];
    const contentBytes = flags >> 6 === 0 ? Number(isSingle) : 1 << (flags >> 6);
    const content = at + 5 + Number(!isSingle) + dictionaryBytes;
    const base = 2 ** (10 + (bytes[at + 5] >> 3));
    const window = isSingle
      ? littleEndian(bytes, content, contentBytes) + (contentBytes === 2 ? 256 : 0)
      : base + (base / 8) * (bytes[at + 5] % 8);
    largest = Math.max(largest, window);
    at = content + contentBytes;
    for (let isLast = false; !isLast && at < bytes.length;) {
      const head = littleEndian(bytes, at, BLOCK_HEAD);
      isLast = head % 2 === 1;
      at += BLOCK_HEAD + ((head >> 1) % 4 === RUN_BLOCK ? 1 : head >> 3);
    }
    const hasChecksum = (flags >> 2) % 2 === 1;
    if (hasChecksum) at += 4;
  }
  return largest;
}

/**
 * Makes a decoder.
 * @returns what is to be called with each piece, and null at the end; it gives what a piece holds, little by little and
 *   without empty pieces, and throws an error with the code Z_DATA_ERROR where the data is broken
 */
export function zstdDecoder(): (piece: Uint8Array | null) => Generator<Uint8Array> {
  const given: Uint8Array[] = [];
  // Of blocks of nothing, which take three bytes each, millions would be held.
  const decoder = new Decompress((piece) => piece.length > 0 && given.push(piece));
  const push = (slice: Uint8Array, isLast: boolean) => {
    try {
      decoder.push(slice, isLast);
    } catch (cause) {
      throw Object.assign(new Error('The data is not Zstandard.', { cause }), { code: 'Z_DATA_ERROR' });
    }
    return given.splice(0);
  };
  return function* (piece) {
    if (piece === null) return yield* push(new Uint8Array(0), true);
    for (let at = 0; at < piece.length; at += SLICE) yield* push(piece.subarray(at, at + SLICE), false);
  };
}
