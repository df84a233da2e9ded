import fc from 'fast-check';
import { expect, it } from 'vitest';
import { thousands } from '.';

it('thousands are told apart as English does', () =>
  fc.assert(
    fc.property(fc.maxSafeNat(), (n) => {
      expect(thousands(n)).toBe(n.toLocaleString('en'));
    }),
  ));
