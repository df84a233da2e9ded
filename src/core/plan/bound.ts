/**
 * How many links any plan needs at least: by weak duality for set cover (V. Chvátal, A greedy heuristic for the
 * set-covering problem, 1979). Every wanted page needs a link to one of the pages from which it is near enough. Weights
 * of wanted pages that add up to 1 at most over what any one link can bring add up to a bound.
 */

/** What a link to each page would bring at best: wanted pages, by number. */
export type Covers = ReadonlyMap<number, readonly number[]>;

/** A weight each of one over the most that a link brings which brings it. */
function evenBound(covers: Covers): number {
  const best = new Map<number, number>();
  for (const brought of covers.values())
    for (const page of brought) best.set(page, Math.max(best.get(page) ?? 0, brought.length));
  let sum = 0;
  for (const most of best.values()) sum += 1 / most;
  return sum;
}

/** Wanted pages of which no link brings two: the hardest to bring first. */
function packingBound(covers: Covers): number {
  const bringers = new Map<number, number[]>();
  for (const [page, brought] of covers)
    for (const wanted of brought) bringers.set(wanted, [...(bringers.get(wanted) ?? []), page]);
  const used = new Set<number>();
  let packed = 0;
  for (const pages of [...bringers.values()].sort((a, b) => a.length - b.length)) {
    if (pages.some((page) => used.has(page))) continue;
    packed++;
    for (const page of pages) used.add(page);
  }
  return packed;
}

/** Rounding must not make a bound larger than it is. */
const TOLERANCE = 1e-9;
export const fewestLinks = (covers: Covers): number =>
  Math.max(Math.ceil(evenBound(covers) - TOLERANCE), packingBound(covers));
