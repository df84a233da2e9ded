import fc from 'fast-check';
import { expect, it } from 'vitest';
import { readPartStream, writePart } from './stream';

const streamOf = (parts: readonly (readonly [string, Uint8Array])[]) =>
  Uint8Array.from(parts.flatMap(([name, bytes]) => writePart(name, bytes).flatMap((piece) => [...piece])));

it('takes apart what was put together, each part at a multiple of eight', () => {
  const part = fc.tuple(fc.string({ maxLength: 12 }), fc.uint8Array({ maxLength: 20 }));
  fc.assert(
    fc.property(fc.uniqueArray(part, { selector: ([name]) => name, maxLength: 6 }), (given) => {
      const read = readPartStream(streamOf(given));
      expect([...read].map(([name, bytes]) => [name, [...bytes]])).toEqual(
        given.map(([name, bytes]) => [name, [...bytes]]),
      );
      for (const bytes of read.values()) expect(bytes.byteOffset % 8).toBe(0);
    }),
  );
});
it('tells that it was cut short', () =>
  expect(() => readPartStream(streamOf([['a', new Uint8Array(64)]]).subarray(0, 40))).toThrow('did not arrive whole'));
