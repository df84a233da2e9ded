import fc from 'fast-check';
import { expect, it } from 'vitest';
import { textColumn } from '.';

const texts = fc.array(fc.option(fc.string({ maxLength: 4, unit: fc.constantFrom('a', 'b', 'é', '🚋') })), {
  maxLength: 200,
});
/** As addresses come: in order, and some of them twice. */
const inOrder = texts.map((all) => [...all].sort((a, b) => ((a ?? '') < (b ?? '') ? -1 : 1)));

it('a column of texts gives each back, and its values are in order, whatever order they came in', () =>
  fc.assert(
    fc.property(fc.oneof(texts, inOrder), (given) => {
      const { codes, values, common } = textColumn(given);
      expect([...codes].map((code) => (code === 0 ? null : values[code]))).toEqual(given);
      const known = values.slice(1);
      expect(known).toEqual([...new Set(given.filter((text) => text !== null))].sort());
      for (let at = 2; at < values.length; at++) {
        const same = common[at];
        expect(values[at].slice(0, same)).toBe(values[at - 1].slice(0, same));
        expect(values[at][same]).not.toBe(values[at - 1][same]);
      }
    }),
  ));
