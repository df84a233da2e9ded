import { describe, expect, it } from 'vitest';
import { allPicked, isPicked, noPicks, pickedOf, toggled, withPicked } from './picks';

const of = (picks: typeof noPicks) => [1, 2, 3, 4, 5].filter((id) => isPicked(picks, id));

describe('the rows that are picked', () => {
  it('are none at first, and those that are toggled', () => {
    const two = toggled(toggled(noPicks, 2, 0), 4, 1);
    expect([of(noPicks), of(two), of(toggled(two, 2, 0))]).toEqual([[], [2, 4], [4]]);
    expect([two.anchor, pickedOf(two, 5)]).toEqual([1, 2]);
  });
  it('are all but one, when one is taken from all', () => {
    const but = toggled(allPicked, 3, 2);
    expect([of(but), pickedOf(but, 5)]).toEqual([[1, 2, 4, 5], 4]);
    expect(of(toggled(but, 3, 2))).toEqual([1, 2, 3, 4, 5]);
  });
  it('grow by a range, whichever way they were picked', () => {
    expect(of(withPicked(toggled(noPicks, 1, 0), [3, 4]))).toEqual([1, 3, 4]);
    expect(of(withPicked(toggled(toggled(allPicked, 2, 0), 5, 0), [4, 5]))).toEqual([1, 3, 4, 5]);
  });
});
