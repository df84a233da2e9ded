import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { wholeNumbersAt, spliced, widening } from './wholeNumbers';

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

it('takes some out and others in, and becomes wider only for them', () =>
  fc.assert(
    fc.property(
      fc.array(fc.nat(200), { maxLength: 20 }),
      fc.array(fc.tuple(fc.nat(3), fc.nat(2), fc.array(fc.oneof(fc.nat(200), fc.nat(70_000)), { maxLength: 3 })), {
        maxLength: 6,
      }),
      (numbers, steps) => {
        const splices: { at: number; out: number; others: number[] }[] = [];
        let from = 0;
        for (const [step, out, others] of steps) {
          const at = Math.min(from + step, numbers.length);
          splices.push({ at, out: Math.min(out, numbers.length - at), others });
          from = at + splices.at(-1)!.out;
        }
        const expected = [...numbers];
        for (const { at, out, others } of [...splices].reverse()) expected.splice(at, out, ...others);
        const others = splices.flatMap((one) => one.others);
        const all = spliced(
          Uint8Array.from(numbers),
          splices.map((one) => ({ at: one.at, out: one.out, in: one.others.length })),
          others,
        );
        expect([...all]).toEqual(expected);
        expect(all.BYTES_PER_ELEMENT > 1).toBe(others.some((other) => other > 255));
      },
    ),
  ));
