import fc from 'fast-check';
import { expect, it } from 'vitest';
import { countPackedLinks, landmarks, linkElements, linkKinds, packLinks, unpackLinks } from '.';
import type { NumberedLink } from '.';

const packed = (links: readonly NumberedLink[]) => packLinks(links, Number, Number);

const number = fc.oneof(fc.nat(), fc.maxSafeNat());
const link = fc.record({
  kind: fc.constantFrom(...linkKinds),
  element: fc.constantFrom(...linkElements),
  landmark: fc.constantFrom(...landmarks),
  target: number,
  anchor: number,
  rel: number,
  path: number,
  fragment: fc.oneof(fc.constant(0), number),
  line: fc.nat(),
  column: fc.nat(),
});

it('unpacks what was packed', () =>
  fc.assert(
    fc.property(fc.array(link, { maxLength: 30 }), (links) => {
      expect(unpackLinks(packed(links))).toEqual(links);
      expect(countPackedLinks(packed(links))).toBe(links.length);
    }),
  ));
it('refuses a newer version and a torn row', () => {
  const row = packed([
    {
      kind: 'click',
      element: 'a',
      landmark: '',
      target: 300,
      anchor: 1,
      rel: 0,
      path: 2,
      fragment: 0,
      line: 9,
      column: 4,
    },
  ]);
  expect(() => unpackLinks(Uint8Array.from([9, ...row.slice(1)]))).toThrow(/version 9/);
  expect(() => unpackLinks(row.slice(0, -1))).toThrow(/end too early/);
});
it('takes a dozen bytes for an ordinary link', () => {
  const links = Array.from({ length: 150 }, (_, i) => ({ kind: 'click', element: 'a', landmark: 'nav', target: 70_000 + i, anchor: 40_000 + i, rel: 0, path: 900, fragment: 0, line: 10 + i, column: 9 }) as const); // prettier-ignore
  expect(packed(links).length / links.length).toBeLessThan(14);
});
