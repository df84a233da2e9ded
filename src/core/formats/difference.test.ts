import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { differenceOfSorted, unifiedDifference } from './difference';

const keyed = (...texts: string[]) => texts.map((text) => [text, text] as const);
const side = (lines: ReturnType<typeof differenceOfSorted>, mark: '-' | '+') =>
  lines.filter((line) => line.mark === ' ' || line.mark === mark).map(({ text }) => text);

describe('the difference of two sorted lists', () => {
  it('is written with three lines around each change', () => {
    const old = keyed('/a', '/b', '/c', '/d', '/e', '/f', '/g', '/h', '/i', '/j');
    const fresh = keyed('/a', '/b', '/c', '/d', '/e2', '/f', '/g', '/h', '/i', '/j', '/k');
    expect(unifiedDifference('live', 'new', differenceOfSorted(old, fresh)).split('\n')).toEqual([
      ...['--- live', '+++ new', '@@ -2,9 +2,10 @@', ' /b', ' /c', ' /d', '-/e', '+/e2', ' /f', ' /g', ' /h', ' /i'],
      ...[' /j', '+/k', ''],
    ]);
  });
  it('of what has changed under the same key has both texts', () =>
    expect(differenceOfSorted([['/a', '/a 2026']], [['/a', '/a 2027']])).toEqual([
      { mark: '-', text: '/a 2026' },
      { mark: '+', text: '/a 2027' },
    ]));
  it('begins before the first line when there was none', () =>
    expect(unifiedDifference('a', 'b', differenceOfSorted([], keyed('/x')))).toBe(
      '--- a\n+++ b\n@@ -0,0 +1 @@\n+/x\n',
    ));
  it('is nothing when nothing differs', () =>
    expect(unifiedDifference('a', 'b', differenceOfSorted(keyed('/x'), keyed('/x')))).toBe(''));
  it('holds both lists', () => {
    const list = fc.uniqueArray(fc.stringMatching(/^[a-e]{1,3}$/)).map((texts) => keyed(...texts.sort()));
    fc.assert(
      fc.property(list, list, (old, fresh) => {
        const lines = differenceOfSorted(old, fresh);
        expect(side(lines, '-')).toEqual(old.map(([key]) => key));
        expect(side(lines, '+')).toEqual(fresh.map(([key]) => key));
      }),
    );
  });
});
