/** The numbers of a crawl that a timeline shows, kept with it so that no snapshot has to be opened for them. */
import { reaches, verdicts } from '../facts';
import { CLICK_KIND } from '../links';
import type { View } from '../view';

export interface TrendCounts {
  /** Pages of each verdict, in the order of `verdicts`. */
  verdicts: number[];
  orphans: number;
  /** Click links that lead to pages which are broken, failing or unanswered. */
  brokenLinks: number;
  /** Of the pages that have a route; null when none has. */
  medianDepth: number | null;
  /** The part of the share that the ten richest pages hold, from 0 to 1. */
  topTen: number;
}

const RICHEST = 10;
const ORPHAN = reaches.indexOf('orphan');
const broken = new Set(
  ['broken', 'failing', 'unanswered'].map((name) => verdicts.findIndex((verdict) => verdict === name)),
);

function medianOf(depths: Int32Array): number | null {
  const known = depths.filter((depth) => depth >= 0).sort();
  return known.length ? known[known.length >> 1] : null;
}

function richestPart(shares: Float64Array): number {
  const known = shares.filter((share) => share > 0).sort();
  const sum = (of: Float64Array) => of.reduce((total, share) => total + share, 0);
  return known.length ? sum(known.subarray(-RICHEST)) / sum(known) : 0;
}

/** Counts what a timeline shows of a crawl. */
export function trendCounts({ count, column, links }: View): TrendCounts {
  const byVerdict = verdicts.map(() => 0);
  let orphans = 0;
  for (let page = 0; page < count; page++) {
    byVerdict[column('verdict')[page]]++;
    if (column('reach')[page] === ORPHAN) orphans++;
  }
  let brokenLinks = 0;
  links.target.forEach((target, link) => {
    if (links.kind[link] === CLICK_KIND && target < count && broken.has(column('verdict')[target])) brokenLinks++;
  });
  return {
    verdicts: byVerdict,
    orphans,
    brokenLinks,
    medianDepth: medianOf(column('depth')),
    topTen: richestPart(column('share')),
  };
}
