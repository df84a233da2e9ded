/** What screens have asked of snapshots: selections, lists and orders, kept for the next window of the same list. */
import type { List } from '$core/lists';
import type { Bits, SelectionFault } from '$core/selection';
import { sizedCache } from '../caches';
import type { View } from '$core/view';

/** The bytes of what is kept for one snapshot, at most; what was asked for last always stays. */
const MAX_BYTES = 192 << 20;

export type Entry =
  { bits: Bits; fault: SelectionFault | null } | { list: List; fault: SelectionFault | null } | { order: Uint32Array };

const bytesOf = (entry: Entry) =>
  'bits' in entry ? entry.bits.words.byteLength : 'list' in entry ? entry.list.bytes : entry.order.byteLength;

const caches = new WeakMap<View, ReturnType<typeof sizedCache<Entry>>>();

/** The cache of a snapshot, which goes with it. */
export function cacheOf(snapshot: View): ReturnType<typeof sizedCache<Entry>> {
  let cache = caches.get(snapshot);
  if (!cache) caches.set(snapshot, (cache = sizedCache<Entry>(MAX_BYTES, bytesOf)));
  return cache;
}

/** The bytes that are kept for a snapshot. */
export const listBytes = (snapshot: View): number => caches.get(snapshot)?.bytes() ?? 0;
