import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readNumbers, thousands, writeNumbers } from '.';

it('thousands are told apart as English does', () =>
  fc.assert(
    fc.property(fc.maxSafeNat(), (n) => {
      expect(thousands(n)).toBe(n.toLocaleString('en'));
    }),
  ));

describe('numbers of picked rows', () => {
  it('are written as ranges', () => {
    expect(writeNumbers([7, 1, 4, 5, 6, 5, 9])).toBe('1,4-7,9');
    expect(writeNumbers([])).toBe('');
    expect(writeNumbers(Array.from({ length: 1_000_000 }, (_, i) => i))).toBe('0-999999');
  });
  it('are the same when they are read again', () =>
    fc.assert(
      fc.property(fc.array(fc.nat(60)), (numbers) => {
        const read = readNumbers(writeNumbers(numbers))!;
        for (let n = 0; n <= 61; n++) expect(read.has(n)).toBe(numbers.includes(n));
        expect(read.list()).toEqual([...new Set(numbers)].sort((a, b) => a - b));
      }),
    ));
  it('are read in any order', () => {
    const { has } = readNumbers('9,1-3,20-22')!;
    expect([0, 1, 3, 4, 9, 10, 21, 23].map(has)).toEqual([false, true, true, false, true, false, true, false]);
  });
  it.each(['x', '1-', '-1', '1,,2', '3-1', '1e9', '9999999999', '1-999999999'])('“%s” is none of them', (text) =>
    expect(readNumbers(text)).toBeNull(),
  );
});
