import { comparator } from '../snapshot';
import type { Column } from '../snapshot';
import { numbersOf } from './bits';
import type { Bits } from './bits';

/** Up to here the first rows are picked out; a list that goes further is sorted. */
const MAX_PICKED = 2000;

/**
 * The first pages of a selection in the order of a column: picked out with a heap, without sorting the others.
 * @param most how many are wanted
 */
export function firstInOrder(bits: Bits, column: Column, descending: boolean, most: number): Uint32Array {
  const pages = numbersOf(bits);
  const compare = comparator(column, descending);
  if (most > MAX_PICKED || most >= pages.length) return pages.sort(compare).subarray(0, most);
  // The last of those kept stands on top.
  const heap = pages.slice(0, most).sort((a, b) => compare(b, a));
  for (let i = most; i < pages.length; i++) {
    const page = pages[i];
    if (compare(page, heap[0]) >= 0) continue;
    let at = 0;
    for (;;) {
      let child = 2 * at + 1;
      if (child >= most) break;
      if (child + 1 < most && compare(heap[child + 1], heap[child]) > 0) child++;
      if (compare(heap[child], page) <= 0) break;
      heap[at] = heap[child];
      at = child;
    }
    heap[at] = page;
  }
  return heap.sort(compare);
}
