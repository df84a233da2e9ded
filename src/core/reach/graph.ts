/**
 * The graphs that measures walk. A {@link LinkGraph} has every link of a crawl; a {@link PageGraph} is made of it once,
 * and has each pair of pages once.
 */

import { orderByKey } from '../grouping';

/** Links in compressed sparse rows: the links of page `i` are the entries `offsets[i]` to `offsets[i + 1] − 1`. */
export interface LinkGraph {
  count: number;
  offsets: Uint32Array;
  /** Page that each link leads to; `count` and above are outside addresses. */
  targets: Uint32Array;
  /** For each link 1 if a reader clicks it, 0 if it carries on without a click, 2 if it is no way for the reader. */
  cost: Uint8Array;
}

export const CLICK = 1;
export const NO_CLICK = 0;
export const NO_WAY = 2;

/** The ways of a reader between pages in compressed sparse rows: each pair of different pages once. */
export interface PageGraph {
  count: number;
  offsets: Uint32Array;
  targets: Uint32Array;
  /** The page that a redirect or meta refresh carries on to without a click, which is among the targets; −1 without. */
  hop: Int32Array;
}

/** Leaves out what leads outside, what is no way, links of a page to itself, and all but one link of a pair. */
export function pageGraph({ count, offsets, targets, cost }: LinkGraph): PageGraph {
  const last = new Int32Array(count).fill(-1);
  const hop = new Int32Array(count).fill(-1);
  const rows = new Uint32Array(count + 1);
  const distinct = new Uint32Array(targets.length);
  let end = 0;
  for (let page = 0; page < count; page++) {
    const stop = offsets[page + 1];
    for (let link = offsets[page]; link < stop; link++) {
      const target = targets[link];
      if (target >= count || cost[link] === NO_WAY || target === page) continue;
      if (cost[link] === NO_CLICK && hop[page] < 0) hop[page] = target;
      if (last[target] === page) continue;
      last[target] = page;
      distinct[end++] = target;
    }
    rows[page + 1] = end;
  }
  // A copy only where it saves much.
  const pairs = end < distinct.length / 2 ? distinct.slice(0, end) : distinct.subarray(0, end);
  return { count, offsets: rows, targets: pairs, hop };
}

/**
 * The same pairs by their targets: the sources of page `i` are `sources[offsets[i]]` to `sources[offsets[i + 1] − 1]`.
 */
export interface Incoming {
  offsets: Uint32Array;
  sources: Uint32Array;
}

/** Turns a graph around, by counting. Sources ascend. */
export function incomingPages({ count, offsets, targets }: Pick<PageGraph, 'count' | 'offsets' | 'targets'>): Incoming {
  const sources = new Uint32Array(targets.length);
  for (let page = 0; page < count; page++) sources.fill(page, offsets[page], offsets[page + 1]);
  return { offsets: orderByKey(targets, sources, count), sources };
}
