/**
 * Whole numbers from 0 on, each in as many bytes as the largest of them takes. A site has many millions of links, most
 * of whose columns hold small numbers.
 */
export type WholeNumbers = Uint8Array | Uint16Array | Uint32Array;

const arrays = [Uint8Array, Uint16Array, Uint32Array] as const;
const withWidth = (width: number) => arrays.find(({ BYTES_PER_ELEMENT }) => BYTES_PER_ELEMENT === width);
const withRoomFor = (number: number) =>
  arrays.find(({ BYTES_PER_ELEMENT }) => number < 2 ** (8 * BYTES_PER_ELEMENT)) ?? Uint32Array;

/**
 * Numbers that are put down one by one, 0 until then, and become wider when one of them needs it.
 * @param width bytes of each to begin with
 */
export function widening(length: number, width = 1) {
  let numbers: WholeNumbers = new (withWidth(width) ?? Uint8Array)(length);
  let room = 2 ** (8 * width);
  return {
    put(at: number, number: number): void {
      if (number >= room) {
        numbers = withRoomFor(number).from(numbers);
        room = 2 ** (8 * numbers.BYTES_PER_ELEMENT);
      }
      numbers[at] = number;
    },
    numbers: () => numbers,
  };
}

/** A place where some numbers are taken out, and others put in. */
export interface Splice {
  at: number;
  out: number;
  in: number;
}

/**
 * Numbers with some taken out and others put in, in more bytes where one of those needs them.
 * @param splices ascending, none within what another takes out
 * @param others what is put in, one splice after the other
 */
export function spliced(numbers: WholeNumbers, splices: readonly Splice[], others: readonly number[]): WholeNumbers {
  const largest = others.reduce((most, other) => Math.max(most, other), 0);
  const width = Math.max(numbers.BYTES_PER_ELEMENT, withRoomFor(largest).BYTES_PER_ELEMENT);
  const taken = splices.reduce((sum, { out }) => sum + out, 0);
  const all = new (withWidth(width) ?? Uint32Array)(numbers.length - taken + others.length);
  let [from, to, put] = [0, 0, 0];
  for (const { at, out, in: more } of splices) {
    all.set(numbers.subarray(from, at), to);
    to += at - from;
    for (let i = 0; i < more; i++) all[to++] = others[put++];
    from = at + out;
  }
  all.set(numbers.subarray(from), to);
  return all;
}

/**
 * Numbers as they lie in memory.
 * @param bytes of all of them, little-endian
 * @param length how many there are
 */
export const wholeNumbersAt = (buffer: ArrayBuffer, from: number, bytes: number, length: number): WholeNumbers =>
  new (withWidth(bytes / (length || 1)) ?? Uint8Array)(buffer, from, length);
