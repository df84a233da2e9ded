/** Where a number leaps from one crawl to the next. */
export interface Spike {
  /** The place of the crawl in the series. */
  at: number;
  before: number;
  after: number;
}

/** A leap is at least so large a part of what was there, and so many times as large as the usual step. */
const LEAST_PART = 0.2;
const TIMES_USUAL = 3;

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted.length ? sorted[sorted.length >> 1] : 0;
}

/**
 * The steps of a series that stand out from its others, the largest first. Unknown entries are passed over.
 * @param least the smallest step that is worth a word
 */
export function spikes(series: readonly (number | null)[], least: number): Spike[] {
  const known = series.flatMap((value, at) => (value === null ? [] : [{ at, value }]));
  const steps = known.slice(1).map(({ at, value }, i) => ({ at, before: known[i].value, after: value }));
  const size = ({ before, after }: Spike) => Math.abs(after - before);
  const usual = median(steps.map(size));
  return steps
    .filter((step) => {
      const others = steps.length > 2 ? TIMES_USUAL * usual : 0;
      return size(step) >= least && size(step) >= LEAST_PART * Math.abs(step.before) && size(step) > others;
    })
    .sort((a, b) => size(b) - size(a) || a.at - b.at);
}
