import fc from 'fast-check';
import { expect, it } from 'vitest';
import { orderByKey, radixOrder } from '.';

/** Enough keys for several ranges, and few, of which many are equal. */
const keysBelow = fc
  .constantFrom(1, 7, 300, 5000)
  .chain((count) => fc.tuple(fc.constant(count), fc.array(fc.nat(count - 1), { maxLength: 2000 })));

it('puts values in the order of their keys, and leaves those of equal keys in theirs', () =>
  fc.assert(
    fc.property(keysBelow, ([count, list]) => {
      const keys = Uint32Array.from(list);
      const places = [...keys.keys()].sort((a, b) => list[a] - list[b] || a - b);
      const values = Uint32Array.from(keys.keys());
      const offsets = orderByKey(keys, values, count);
      expect([...values]).toEqual(places);
      expect([...keys]).toEqual(list);
      for (let key = 0; key < count; key++)
        for (const at of values.subarray(offsets[key], offsets[key + 1])) expect(keys[at]).toBe(key);
      expect(offsets[count]).toBe(list.length);
      const halves = new Float64Array(keys.keys()).map((at) => at / 2);
      orderByKey(keys, halves, count);
      expect([...halves]).toEqual(places.map((at) => at / 2));
    }),
    { numRuns: 100 },
  ));

it('gives the places of keys of 32 bits in their order', () =>
  fc.assert(
    fc.property(fc.array(fc.nat(0xffffffff), { maxLength: 500 }), (list) => {
      const places = [...list.keys()].sort((a, b) => list[a] - list[b] || a - b);
      expect([...radixOrder(Uint32Array.from(list))]).toEqual(places);
    }),
  ));
