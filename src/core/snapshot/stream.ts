/**
 * Parts of a snapshot as one stream of bytes, for a worker of the browser: for each part the length of its name, the
 * name, the length of its bytes and the bytes; lengths are 32 bits, the lowest first, and everything begins at a
 * multiple of eight.
 */
import type { SnapshotParts } from './encode';

const WIDTH = 8;
const padded = (length: number) => Math.ceil(length / WIDTH) * WIDTH;

/** A part as it stands in the stream. */
export function writePart(name: string, bytes: Uint8Array): Uint8Array[] {
  const named = new TextEncoder().encode(name);
  const head = new Uint8Array(WIDTH + padded(named.length));
  const view = new DataView(head.buffer);
  view.setUint32(0, named.length, true);
  view.setUint32(4, bytes.length, true);
  head.set(named, WIDTH);
  return [head, bytes, new Uint8Array(padded(bytes.length) - bytes.length)];
}

/** Takes a stream of parts apart again, without copying it. @throws RangeError when it is cut short */
export function readPartStream(stream: Uint8Array): SnapshotParts {
  const parts: SnapshotParts = new Map();
  const view = new DataView(stream.buffer, stream.byteOffset, stream.byteLength);
  for (let at = 0; at < stream.length;) {
    const [nameLength, length] = [view.getUint32(at, true), view.getUint32(at + 4, true)];
    const from = at + WIDTH + padded(nameLength);
    if (from + length > stream.length) throw new RangeError('The parts of the crawl did not arrive whole.');
    const name = new TextDecoder().decode(stream.subarray(at + WIDTH, at + WIDTH + nameLength));
    parts.set(name, stream.subarray(from, from + length));
    at = from + padded(length);
  }
  return parts;
}
