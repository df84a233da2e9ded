import fc from 'fast-check';
import { expect, it } from 'vitest';
import { byteNumbers } from '.';

it('numbers runs of bytes in the order in which they are met', () =>
  fc.assert(
    fc.property(
      fc.array(fc.string({ maxLength: 3, unit: 'binary-ascii' }), { maxLength: 3000 }),
      fc.nat(3),
      (texts, shift) => {
        const table = byteNumbers();
        const met = [...new Set(texts)];
        const numbers = texts.map((text) => {
          const bytes = Buffer.from(' '.repeat(shift) + text + '!', 'latin1');
          return table.numberOf(bytes, shift, shift + text.length);
        });
        expect(numbers).toEqual(texts.map((text) => met.indexOf(text)));
        expect(table.count()).toBe(met.length);
      },
    ),
    { numRuns: 50 },
  ));
it('tells long runs apart, of which few stand in one block', () => {
  const table = byteNumbers();
  const run = (i: number) => new Uint8Array(300_000).fill(1 + (i % 5), i);
  const numbers = Array.from({ length: 40 }, (_, i) => table.numberOf(run(i), 0, 300_000));
  expect(numbers).toEqual(Array.from({ length: 40 }, (_, i) => i));
  expect(table.numberOf(run(7), 0, 300_000)).toBe(7);
});
