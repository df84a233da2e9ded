/**
 * Bounds: what a site wants to hold after every crawl, such as “indexable orphans: at most 0”. A bound is over a
 * selection or a finding.
 */

export interface Bound {
  id: number;
  name: string;
  /** What is counted: pages or links of a selection, or the places of a finding. */
  over: 'pages' | 'links' | 'finding';
  /** The selection, or the id of the finding. */
  text: string;
  /** The most there may be; null when there may be no more than in the crawl before. */
  atMost: number | null;
}

/** What a crawl tells of a bound. */
export interface CheckedBound extends Bound {
  /** Null when it cannot be answered, as `fault` says. */
  count: number | null;
  /** In the crawl before; null when there is none, or it cannot be answered. */
  before: number | null;
  fault: string | null;
  isBroken: boolean;
}

/** Whether a count breaks a bound. What cannot be answered breaks none; nothing can rise without a crawl before. */
export const breaks = ({ atMost }: Pick<Bound, 'atMost'>, count: number | null, before: number | null): boolean =>
  count !== null && (atMost === null ? before !== null && count > before : count > atMost);
