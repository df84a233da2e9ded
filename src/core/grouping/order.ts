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

/** Ranges of keys that the first pass over values tells apart, at most: each is a place to which it writes by turns. */
const RANGES = 256;

/**
 * Puts values in the order of their keys, by counting; those of equal keys keep their order. The first pass sorts them
 * by ranges of keys, the second within those: written at once to where each belongs, all over memory, many millions of
 * values take four times as long (Manegold, Boncz and Kersten, "Optimizing main-memory join on modern hardware", 2002).
 * @param keys a key a value, below `count`
 * @param values are put in order in place
 * @returns where the values of each key begin, and the end of the last
 */
export function orderByKey(keys: Uint32Array, values: Uint32Array | Float64Array, count: number): Uint32Array {
  const shift = Math.max(0, Math.ceil(Math.log2(count / RANGES)));
  const ranges = Math.ceil(count / 2 ** shift);
  const ends = new Uint32Array(ranges);
  for (let i = 0; i < keys.length; i++) ends[keys[i] >>> shift]++;
  for (let range = 0, sum = 0; range < ranges; range++) [ends[range], sum] = [sum, sum + ends[range]];
  // Of a key its range is known then: what is left of it takes half the room.
  const left = new (shift <= 16 ? Uint16Array : Uint32Array)(keys.length);
  const byRange = values.slice();
  const within = 2 ** shift - 1;
  for (let i = 0; i < keys.length; i++) {
    const at = ends[keys[i] >>> shift]++;
    left[at] = keys[i] & within;
    byRange[at] = values[i];
  }
  const offsets = new Uint32Array(count + 1);
  const next = new Uint32Array(within + 1);
  for (let range = 0, from = 0; range < ranges; from = ends[range++]) {
    const first = range << shift;
    next.fill(0);
    for (let i = from; i < ends[range]; i++) next[left[i]]++;
    const size = Math.min(within + 1, count - first);
    for (let key = 0, sum = from; key < size; key++) {
      offsets[first + key] = sum;
      sum += next[key];
      next[key] = offsets[first + key];
    }
    for (let i = from; i < ends[range]; i++) values[next[left[i]]++] = byRange[i];
  }
  offsets[count] = keys.length;
  return offsets;
}
