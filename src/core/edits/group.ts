/** What is equal, told apart without making a key of each. */
export interface Groups {
  count: number;
  /** The group of each entry, in the order they were given. */
  of: Uint32Array;
  /** The first entry of each group. */
  first: number[];
}

/**
 * Numbers groups of equal entries, in the order in which they are first met.
 * @param hash 32 bits that are the same for equal entries
 */
export function groupEqual(
  entries: ArrayLike<number>,
  hash: (entry: number) => number,
  equal: (a: number, b: number) => boolean,
): Groups {
  const size = 1 << Math.max(4, Math.ceil(Math.log2(entries.length * 2 + 1)));
  // Open addressing: a group's number + 1, or 0 where there is none.
  const table = new Uint32Array(size);
  const of = new Uint32Array(entries.length);
  const first: number[] = [];
  for (let i = 0; i < entries.length; i++) {
    const entry = entries[i];
    let mixed = hash(entry);
    mixed = Math.imul(mixed ^ (mixed >>> 16), 0x45d9f3b);
    let at = (mixed ^ (mixed >>> 16)) & (size - 1);
    while (table[at] !== 0 && !equal(first[table[at] - 1], entry)) at = (at + 1) & (size - 1);
    if (table[at] === 0) table[at] = first.push(entry);
    of[i] = table[at] - 1;
  }
  return { count: first.length, of, first };
}
