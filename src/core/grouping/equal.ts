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
  // Open addressing: a group's number + 1, or 0 where there is none. It grows with the groups, which are few.
  let table = new Uint32Array(1 << 10);
  const of = new Uint32Array(entries.length);
  const first: number[] = [];
  const placeOf = (entry: number) => {
    let mixed = hash(entry);
    mixed = Math.imul(mixed ^ (mixed >>> 16), 0x45d9f3b);
    return (mixed ^ (mixed >>> 16)) & (table.length - 1);
  };
  const grow = () => {
    table = new Uint32Array(table.length * 4);
    for (let group = 0; group < first.length; group++) {
      let at = placeOf(first[group]);
      while (table[at] !== 0) at = (at + 1) & (table.length - 1);
      table[at] = group + 1;
    }
  };
  for (let i = 0; i < entries.length; i++) {
    const entry = entries[i];
    let at = placeOf(entry);
    while (table[at] !== 0 && !equal(first[table[at] - 1], entry)) at = (at + 1) & (table.length - 1);
    if (table[at] !== 0) {
      of[i] = table[at] - 1;
      continue;
    }
    of[i] = first.length;
    table[at] = first.push(entry);
    if (first.length * 2 > table.length) grow();
  }
  return { count: first.length, of, first };
}
