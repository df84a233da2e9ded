/**
 * Whole numbers from 0 on, each in as many bytes as the largest of them takes. A site has many millions of links, most of
 * whose columns hold small numbers.
 */
export type WholeNumbers = Uint8Array | Uint16Array | Uint32Array;

const arrays = [Uint8Array, Uint16Array, Uint32Array] as const;
const withWidth = (width: number) => arrays.find(({ BYTES_PER_ELEMENT }) => BYTES_PER_ELEMENT === width);
const withRoomFor = (number: number) =>
  arrays.find(({ BYTES_PER_ELEMENT }) => number < 2 ** (8 * BYTES_PER_ELEMENT)) ?? Uint32Array;

/** Numbers that are put down one by one, 0 until then, and become wider when one of them needs it. */
export function widening(length: number) {
  let numbers: WholeNumbers = new Uint8Array(length);
  let room = 2 ** 8;
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

/**
 * Numbers as they lie in memory.
 * @param bytes of all of them, little-endian
 * @param length how many there are
 */
export const wholeNumbersAt = (buffer: ArrayBuffer, from: number, bytes: number, length: number): WholeNumbers =>
  new (withWidth(bytes / (length || 1)) ?? Uint8Array)(buffer, from, length);
