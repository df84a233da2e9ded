import { MADE_OF } from '../snapshot';
import type { Snapshot } from '../snapshot';
import type { Comparison } from './pages';

/** A snapshot with the comparison to an earlier crawl that selections across crawls ask. */
export interface ComparedSnapshot extends Snapshot {
  comparison: Comparison;
}

/** Puts a comparison beside the snapshot of its new crawl. */
export const withComparison = <S extends Snapshot>(snapshot: S, comparison: Comparison): S & ComparedSnapshot =>
  Object.create(snapshot, {
    comparison: { value: comparison, enumerable: true },
    [MADE_OF]: { value: snapshot },
  }) as S & ComparedSnapshot;

/** The comparison that stands beside a snapshot; null where it was opened without one. */
export const comparisonBeside = (snapshot: Snapshot): Comparison | null =>
  (snapshot as Partial<ComparedSnapshot>).comparison ?? null;
