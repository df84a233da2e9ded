/** Share of pages against that of their peers. */
import { INDEXABLE } from '../facts';
import { groupEqual, orderByKey } from '../grouping';
import type { ColumnReader } from '../snapshot';
/** Fewer pages have no usual share. */
const LEAST_PEERS = 5;

function medianOf(sorted: Float64Array): number {
  const middle = sorted.length >> 1;
  return sorted.length % 2 ? sorted[middle] : (sorted[middle - 1] + sorted[middle]) / 2;
}

/**
 * The share of each indexable page that is reached, divided by the median share of its peers: those of its section at
 * its depth or, where these are fewer than five, all at its depth. What is far below its peers gets too little for what
 * it is; what is only deep, or in a quiet section, does not.
 * @returns −1 where a page has no share, or no peers
 */
export function peerShares({
  count,
  column,
}: {
  count: number;
  column: ColumnReader<'share' | 'depth' | 'section' | 'verdict'>;
}): Float64Array {
  const share = column('share');
  const depth = column('depth');
  const section = column('section');
  const verdict = column('verdict');
  const isJudged = (page: number) => verdict[page] === INDEXABLE && depth[page] >= 0 && share[page] >= 0;
  const judged = new Uint32Array(count).map((_, page) => page).filter(isJudged);
  const deepest = judged.reduce((most, page) => Math.max(most, depth[page]), 0) + 1;
  const groupsBy = (keyOf: (page: number) => number) => {
    const groups = groupEqual(judged, keyOf, (a, b) => keyOf(a) === keyOf(b));
    const pages = judged.slice();
    const offsets = orderByKey(groups.of, pages, groups.count);
    return groups.first.map((_, group) => pages.subarray(offsets[group], offsets[group + 1]));
  };
  const medianShare = (pages: Uint32Array) => medianOf(new Float64Array(pages).map((page) => share[page]).sort());
  const peers = new Float64Array(count).fill(-1);
  const compare = (pages: Uint32Array, median: number) => {
    if (median > 0) for (const page of pages) peers[page] = share[page] / median;
  };
  const atDepth = new Map(
    groupsBy((page) => depth[page])
      .filter(({ length }) => length >= LEAST_PEERS)
      .map((pages) => [depth[pages[0]], medianShare(pages)]),
  );
  for (const pages of groupsBy((page) => section.codes[page] * deepest + depth[page]))
    compare(pages, pages.length >= LEAST_PEERS ? medianShare(pages) : (atDepth.get(depth[pages[0]]) ?? 0));
  return peers;
}
