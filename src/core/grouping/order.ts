const RADIX = 1 << 16;

/**
 * Sorts keys of 32 bits, 16 at a time, the least significant first: a radix sort, whose time is linear.
 * @returns their places; equal ones keep their order
 */
export function radixOrder(keys: Uint32Array): Uint32Array {
  let from = new Uint32Array(keys.length);
  for (let i = 0; i < from.length; i++) from[i] = i;
  let to = new Uint32Array(keys.length);
  const next = new Uint32Array(RADIX + 1);
  for (const shift of [0, 16]) {
    next.fill(0);
    for (let i = 0; i < keys.length; i++) next[((keys[i] >>> shift) & 0xffff) + 1]++;
    // Where all digits are equal there is nothing to do, as in the high half of small numbers.
    if (next[((keys[0] >>> shift) & 0xffff) + 1] === keys.length) continue;
    for (let digit = 0; digit < RADIX; digit++) next[digit + 1] += next[digit];
    for (let i = 0; i < from.length; i++) to[next[(keys[from[i]] >>> shift) & 0xffff]++] = from[i];
    [from, to] = [to, from];
  }
  return from;
}
