/** The links of a site as a reader walks them, on their way to the browser. */
import { crawlerGraph, visitorGraph } from '../reach';
import type { LinkGraph, Reader } from '../reach';
import type { SnapshotParts } from '../snapshot';
import type { View } from '../view';

const bytesOf = ({ buffer, byteOffset, byteLength }: Uint32Array | Uint8Array) =>
  new Uint8Array(buffer as ArrayBuffer, byteOffset, byteLength);

/** The parts that {@link waysOf} reads. */
export function partsOfWays(view: View, reader: Reader): SnapshotParts {
  const { offsets, targets, cost } = reader === 'visitor' ? visitorGraph(view) : crawlerGraph(view);
  return new Map([
    ['ways.offsets', bytesOf(offsets)],
    ['ways.targets', bytesOf(targets)],
    ['ways.cost', bytesOf(cost)],
  ]);
}

/** Reads what {@link partsOfWays} gave. */
export function waysOf(parts: SnapshotParts, count: number): LinkGraph {
  const part = (name: string) => {
    const bytes = parts.get(name);
    if (!bytes) throw new Error(`The part “${name}” of the links has not come.`);
    return bytes;
  };
  // Copied to begin at a multiple of their width.
  const u32 = (name: string) => new Uint32Array(part(name).slice().buffer);
  return { count, offsets: u32('ways.offsets'), targets: u32('ways.targets'), cost: part('ways.cost') };
}
