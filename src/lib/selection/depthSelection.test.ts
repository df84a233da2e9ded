import { describe, expect, it } from 'vitest';
import { depthsOf, pickDepth, selectionOf } from './depthSelection';

describe('bars and selections', () => {
  it.each([
    [[3], 'depth = 3'],
    [[5, 3], 'depth in (3, 5)'],
    [[null], 'not reached'],
    [[3, null], 'depth = 3 or not reached'],
    [[], ''],
  ])('%o is written as “%s” and read back', (depths, text) => {
    expect(selectionOf(depths)).toBe(text);
    expect(new Set(depthsOf(text))).toEqual(new Set(depths));
  });
  it('does not claim a selection that it could not have written', () =>
    expect(depthsOf('depth = 3 and indexable')).toEqual([]));
  it('picks one, picks it off again, and adds with a key held', () => {
    expect(pickDepth('', 2, false)).toBe('depth = 2');
    expect(pickDepth('depth = 2', 2, false)).toBe('');
    expect(pickDepth('depth = 2', 4, false)).toBe('depth = 4');
    expect(pickDepth('depth = 2', null, true)).toBe('depth = 2 or not reached');
    expect(pickDepth('depth in (2, 4)', 4, true)).toBe('depth = 2');
  });
});
