import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compareLines, folded } from '.';

describe('two texts side by side', () => {
  it('have what came in place of other lines beside these', () =>
    expect(compareLines(['Trams', 'Buses', 'End'], ['Trams', 'Trolleybuses', 'Ferries', 'End'])).toEqual([
      { then: { number: 1, text: 'Trams' }, now: { number: 1, text: 'Trams' } },
      { then: { number: 2, text: 'Buses' }, now: { number: 2, text: 'Trolleybuses' } },
      { then: null, now: { number: 3, text: 'Ferries' } },
      { then: { number: 3, text: 'End' }, now: { number: 4, text: 'End' } },
    ]));
  it('leave out what is equal, but for some lines around what is not', () => {
    const before = Array.from({ length: 20 }, (_, i) => `line ${i}`);
    const after = before.map((line, i) => (i === 10 ? 'another' : line));
    const shown = folded(compareLines(before, after)!, 2);
    expect(shown).toHaveLength(7);
    expect([shown[0], shown[6]]).toEqual([{ left: 8 }, { left: 7 }]);
  });
  it('hold every line of both, in order', () => {
    const text = fc.array(fc.constantFrom('a', 'b', 'c', ''), { maxLength: 30 });
    fc.assert(
      fc.property(text, text, (before, after) => {
        const lines = compareLines(before, after)!;
        expect(lines.flatMap(({ then }) => (then ? [then.text] : []))).toEqual(before);
        expect(lines.flatMap(({ now }) => (now ? [now.text] : []))).toEqual(after);
        const left = folded(lines, 1).map((one) => ('left' in one ? one.left : 1));
        expect(left.reduce((sum, n) => sum + n, 0)).toBe(lines.length);
      }),
    );
  });
});
