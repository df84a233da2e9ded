/** Short runs of bytes, numbered in the order in which they are first met, without making a text of each. */
export interface ByteNumbers {
  /** The number of the bytes from `from` to `to`: the next one, which `count()` was before, when they are new. */
  numberOf: (bytes: Uint8Array, from: number, to: number) => number;
  /** How many different ones there are. */
  count: () => number;
}

const BLOCK_BITS = 20;
const BLOCK = 1 << BLOCK_BITS;

/** Makes an empty table. Runs are shorter than a MiB. */
export function byteNumbers(): ByteNumbers {
  // Open addressing: a number + 1, or 0 where there is none.
  let table = new Uint32Array(1 << 10);
  /** Of each number the hash of its bytes, their place and their length, in turn. */
  let known = new Uint32Array(3 << 9);
  let count = 0;
  /** Copies of the bytes, in blocks: none runs over the end of one. */
  const blocks: Uint8Array[] = [];
  let end = 0;
  const keep = (bytes: Uint8Array, from: number, to: number): number => {
    if ((end & (BLOCK - 1)) + to - from > BLOCK || blocks.length === 0) {
      end = blocks.length * BLOCK;
      blocks.push(new Uint8Array(BLOCK));
    }
    const place = end;
    const block = blocks[place >>> BLOCK_BITS];
    for (let i = from; i < to; i++) block[(place & (BLOCK - 1)) + i - from] = bytes[i];
    end += to - from;
    return place;
  };
  const grow = () => {
    table = new Uint32Array(table.length * 2);
    for (let number = 0; number < count; number++) {
      let at = known[3 * number] & (table.length - 1);
      while (table[at] !== 0) at = (at + 1) & (table.length - 1);
      table[at] = number + 1;
    }
    const more = new Uint32Array(known.length * 2);
    more.set(known);
    known = more;
  };
  const isAt = (place: number, bytes: Uint8Array, from: number, to: number): boolean => {
    const block = blocks[place >>> BLOCK_BITS];
    const shift = (place & (BLOCK - 1)) - from;
    for (let i = from; i < to; i++) if (block[i + shift] !== bytes[i]) return false;
    return true;
  };
  return {
    count: () => count,
    numberOf(bytes, from, to) {
      let hash = 0;
      for (let i = from; i < to; i++) hash = (Math.imul(hash, 31) + bytes[i]) | 0;
      hash = Math.imul(hash ^ (hash >>> 15), 0x85ebca6b);
      hash = (hash ^ (hash >>> 13)) >>> 0;
      let at = hash & (table.length - 1);
      for (; table[at] !== 0; at = (at + 1) & (table.length - 1)) {
        const one = 3 * (table[at] - 1);
        if (known[one] === hash && known[one + 2] === to - from && isAt(known[one + 1], bytes, from, to))
          return table[at] - 1;
      }
      table[at] = ++count;
      known[3 * count - 3] = hash;
      known[3 * count - 2] = keep(bytes, from, to);
      known[3 * count - 1] = to - from;
      if (2 * count >= table.length) grow();
      return count - 1;
    },
  };
}
