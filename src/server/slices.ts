/** Work that comes in slices, beside everything else that a process does. */
import { setImmediate as others } from 'node:timers/promises';

/** Does work slice by slice, with room for others between them. @throws the reason of the signal */
export async function inSlices<T>(slices: Generator<void, T>, signal?: AbortSignal): Promise<T> {
  for (;;) {
    const { done, value } = slices.next();
    if (done) return value;
    await others();
    signal?.throwIfAborted();
  }
}
