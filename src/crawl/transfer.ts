/** Memory that goes from one thread to another without being copied, or that several see. */
import { move, transferableSymbol, valueSymbol } from 'piscina';
import type { SnapshotParts } from '$core/snapshot';

/** Bytes that can be given away: a view of memory that others use is copied first. */
export const ownBytes = (bytes: Uint8Array): Uint8Array =>
  bytes.byteLength === bytes.buffer.byteLength ? bytes : Uint8Array.from(bytes);

/** The answer of a thread, with the memory of some arrays in it given away. Each may come more than once. */
export function give<T extends object>(value: T, arrays: Iterable<ArrayBufferView>): T {
  const buffers = new Set([...arrays].map(({ buffer }) => buffer));
  return move({ [transferableSymbol]: [...buffers], [valueSymbol]: value } as never) as unknown as T;
}

/**
 * Puts parts into memory that every thread sees, one after the other in place, so that what they were in can be given
 * back meanwhile.
 */
export function shareParts(parts: SnapshotParts): SnapshotParts {
  for (const [name, bytes] of parts) {
    if (bytes.buffer instanceof SharedArrayBuffer) continue;
    const part = new Uint8Array(new SharedArrayBuffer(bytes.length));
    part.set(bytes);
    parts.set(name, part);
  }
  return parts;
}
