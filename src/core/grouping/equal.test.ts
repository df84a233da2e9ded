import fc from 'fast-check';
import { expect, it } from 'vitest';
import { groupEqual } from '.';

it('groups what is equal, whatever the hash says, in the order in which it is met', () =>
  fc.assert(
    fc.property(fc.array(fc.nat(4000), { maxLength: 5000 }), fc.integer({ min: 1, max: 5 }), (values, spread) => {
      const entries = [...values.keys()];
      const { count, of, first } = groupEqual(
        entries,
        (i) => values[i] % spread,
        (a, b) => values[a] === values[b],
      );
      const met = [...new Set(values)];
      expect(count).toBe(met.length);
      expect(first.map((i) => values[i])).toEqual(met);
      expect([...of]).toEqual(values.map((value) => met.indexOf(value)));
    }),
    { numRuns: 30 },
  ));
