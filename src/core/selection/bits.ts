import type { WholeNumbers } from '../snapshot';

/** A set of the numbers 0 to size − 1, a bit each: what a selection holds. */
export interface Bits {
  size: number;
  words: Uint32Array;
}

export const noBits = (size: number): Bits => ({ size, words: new Uint32Array((size + 31) >>> 5) });

export const hasBit = ({ words }: Bits, i: number): boolean => ((words[i >>> 5] >>> (i & 31)) & 1) === 1;

export const setBit = ({ words }: Bits, i: number): void => {
  words[i >>> 5] |= 1 << (i & 31);
};

/** The numbers that pass a test. */
export function bitsWhere(size: number, test: (i: number) => boolean): Bits {
  const bits = noBits(size);
  for (let at = 0, i = 0; at < bits.words.length; at++) {
    let word = 0;
    for (let bit = 0; bit < 32 && i < size; bit++, i++) if (test(i)) word |= 1 << bit;
    bits.words[at] = word;
  }
  return bits;
}

/** The numbers whose code passes: `passes` has one entry a code. */
export function bitsOfCodes(codes: WholeNumbers, passes: Uint8Array): Bits {
  const bits = noBits(codes.length);
  for (let at = 0, i = 0; at < bits.words.length; at++) {
    let word = 0;
    const stop = Math.min(32, codes.length - i);
    for (let bit = 0; bit < stop; bit++, i++) word |= passes[codes[i]] << bit;
    bits.words[at] = word;
  }
  return bits;
}

/** Adds the numbers `from` to `to − 1` to a set. */
export function setRange({ words }: Bits, from: number, to: number): void {
  if (from >= to) return;
  const [first, last] = [from >>> 5, (to - 1) >>> 5];
  const head = -1 << (from & 31);
  const tail = -1 >>> (31 - ((to - 1) & 31));
  if (first === last) {
    words[first] |= head & tail;
    return;
  }
  words[first] |= head;
  words.fill(-1, first + 1, last);
  words[last] |= tail;
}

/** The numbers whose value is known (not negative) and passes a test. */
export function bitsOfValues(values: ArrayLike<number>, test: (value: number) => boolean): Bits {
  const bits = noBits(values.length);
  for (let at = 0, i = 0; at < bits.words.length; at++) {
    let word = 0;
    const stop = Math.min(32, values.length - i);
    for (let bit = 0; bit < stop; bit++, i++) if (values[i] >= 0 && test(values[i])) word |= 1 << bit;
    bits.words[at] = word;
  }
  return bits;
}

const each2 = (a: Bits, b: Bits, join: (x: number, y: number) => number): Bits => ({
  size: a.size,
  words: a.words.map((word, i) => join(word, b.words[i])),
});
export const bothBits = (a: Bits, b: Bits) => each2(a, b, (x, y) => x & y);
export const eitherBits = (a: Bits, b: Bits) => each2(a, b, (x, y) => x | y);

export function otherBits({ size, words }: Bits): Bits {
  const other = words.map((word) => ~word);
  // What lies beyond the last number stays empty.
  if (size & 31) other[other.length - 1] &= (1 << (size & 31)) - 1;
  return { size, words: other };
}

export function countBits({ words }: Bits): number {
  let n = 0;
  for (let i = 0; i < words.length; i++) {
    let word = words[i];
    word -= (word >>> 1) & 0x55555555;
    word = (word & 0x33333333) + ((word >>> 2) & 0x33333333);
    n += Math.imul((word + (word >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
  }
  return n;
}

/** Visits the numbers of a set, ascending. */
export function eachBit({ words }: Bits, visit: (i: number) => void): void {
  for (let at = 0; at < words.length; at++)
    for (let word = words[at]; word !== 0; word &= word - 1) visit(at * 32 + 31 - Math.clz32(word & -word));
}

/** The numbers of a set, ascending. */
export function numbersOf(bits: Bits): Uint32Array {
  const numbers = new Uint32Array(countBits(bits));
  let at = 0;
  eachBit(bits, (i) => (numbers[at++] = i));
  return numbers;
}
