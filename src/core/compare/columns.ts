/** Facts of change, one entry a row of a comparison. */
import type { ChangeFactName } from '../facts';
import { keptOf } from '../snapshot';
import type { Snapshot } from '../snapshot';
import { likenessOf } from './likeness';
import { costOf } from './pages';
import type { Comparison } from './pages';
import { addressAfter, addressBefore, freshPageOf, movedTo, oldPageOf } from './pair';

/** Numbers, choices and sets as numbers, NaN where unknown; texts with null where there is none. */
export type ChangeColumn = { numbers: Float64Array } | { texts: (string | null)[] };

function numbers(comparison: Comparison, of: (was: number, is: number, row: number) => number): ChangeColumn {
  const column = new Float64Array(comparison.rows);
  for (let row = 0; row < column.length; row++)
    column[row] = of(oldPageOf(comparison, row), freshPageOf(comparison, row), row);
  return { numbers: column };
}

/** How a number has changed; unknown where it is so in one of the crawls. */
function difference(comparison: Comparison, fact: 'depth' | 'links_in' | 'links_out' | 'word_count'): ChangeColumn {
  const [before, after] = [comparison.old.column(fact), comparison.fresh.column(fact)];
  return numbers(comparison, (was, is) =>
    was < 0 || is < 0 || before[was] < 0 || after[is] < 0 ? NaN : after[is] - before[was],
  );
}

function shareChange(comparison: Comparison): ChangeColumn {
  const share = ({ column }: Snapshot, page: number) => (page < 0 ? -1 : column('share')[page]);
  return numbers(comparison, (was, is) => {
    const [before, after] = [share(comparison.old, was), share(comparison.fresh, is)];
    return before < 0 && after < 0 ? NaN : Math.max(0, after) - Math.max(0, before);
  });
}

const texts = (comparison: Comparison, of: (row: number) => string | null): ChangeColumn => ({
  texts: Array.from({ length: comparison.rows }, (_, row) => of(row)),
});

const makers: Record<ChangeFactName, (comparison: Comparison) => ChangeColumn> = {
  change: (comparison) => ({ numbers: new Float64Array(comparison.change) }),
  changed_facts: (comparison) => ({ numbers: new Float64Array(comparison.changed) }),
  cost: (comparison) => ({
    numbers: new Float64Array(comparison.rows).map((_, row) => costOf(comparison, row)),
  }),
  moved_to: (comparison) => texts(comparison, (row) => movedTo(comparison, row)),
  was_url: (comparison) =>
    texts(comparison, (row) => {
      const was = addressBefore(comparison, row);
      return was === addressAfter(comparison, row) ? null : was;
    }),
  share_change: shareChange,
  depth_change: (comparison) => difference(comparison, 'depth'),
  links_in_change: (comparison) => difference(comparison, 'links_in'),
  links_out_change: (comparison) => difference(comparison, 'links_out'),
  word_count_change: (comparison) => difference(comparison, 'word_count'),
  content_likeness: (comparison) =>
    numbers(comparison, (was, is) => likenessOf(comparison.old, comparison.fresh, was, is)),
};

const kept = keptOf<Comparison, Partial<Record<ChangeFactName, ChangeColumn>>>(() => ({}));

/** A fact of change, made when it is first asked for and kept as long as the comparison. */
export const changeColumn = (comparison: Comparison, name: ChangeFactName): ChangeColumn =>
  (kept(comparison)[name] ??= makers[name](comparison));
