/** Memory that goes from one thread to another without being copied. */
import { move, transferableSymbol, valueSymbol } from 'piscina';

/** Bytes that can be given away: a view of memory that others use is copied first. */
export const ownBytes = (bytes: Uint8Array): Uint8Array =>
  bytes.byteLength === bytes.buffer.byteLength ? bytes : Uint8Array.from(bytes);

/** The answer of a thread, with the memory of some arrays in it given away. Each may come more than once. */
export function give<T extends object>(value: T, arrays: Iterable<ArrayBufferView>): T {
  const buffers = new Set([...arrays].map(({ buffer }) => buffer));
  return move({ [transferableSymbol]: [...buffers], [valueSymbol]: value } as never) as unknown as T;
}
