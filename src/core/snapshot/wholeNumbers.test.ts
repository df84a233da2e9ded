import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { wholeNumbersAt, widening, withInserted } from './wholeNumbers';

const put = (numbers: readonly number[]) => {
  const column = widening(numbers.length);
  numbers.forEach((number, at) => column.put(at, number));
  return column.numbers();
};

describe('whole numbers', () => {
  it('are as wide as the largest of them needs', () => {
    const widths = [[], [0, 255], [3, 256, 1], [65_535], [65_536, 2], [2 ** 32 - 1]].map(
      (numbers) => put(numbers).BYTES_PER_ELEMENT,
    );
    expect(widths).toEqual([1, 1, 2, 2, 4, 4]);
  });
  it('are 0 where none was put, also after they have become wider', () => {
    const column = widening(4);
    column.put(2, 7);
    column.put(0, 70_000);
    expect([...column.numbers()]).toEqual([70_000, 0, 7, 0]);
  });
  it('are the same when they are read from memory, however wide they are', () => {
    fc.assert(
      fc.property(fc.array(fc.oneof(fc.nat(300), fc.nat(70_000), fc.nat(2 ** 32 - 1))), (numbers) => {
        const written = put(numbers);
        const stored = [written, Uint32Array.from(numbers)];
        for (const { buffer, byteLength, length } of stored)
          expect([...wholeNumbersAt(buffer as ArrayBuffer, 0, byteLength, length)]).toEqual(numbers);
      }),
    );
  });
});

it('takes others in between, and becomes wider only for them', () =>
  fc.assert(
    fc.property(
      fc.array(fc.nat(200), { maxLength: 20 }),
      fc.array(fc.tuple(fc.nat(20), fc.oneof(fc.nat(200), fc.nat(70_000))), { maxLength: 6 }),
      (numbers, inserted) => {
        const sorted = inserted
          .map(([place, other]) => [Math.min(place, numbers.length), other])
          .sort((a, b) => a[0] - b[0]);
        const expected = [...numbers];
        for (const [place, other] of [...sorted].reverse()) expected.splice(place, 0, other);
        const all = withInserted(
          Uint8Array.from(numbers),
          sorted.map(([place]) => place),
          sorted.map(([, other]) => other),
        );
        expect([...all]).toEqual(expected);
        expect(all.BYTES_PER_ELEMENT > 1).toBe(sorted.some(([, other]) => other > 255));
      },
    ),
  ));
