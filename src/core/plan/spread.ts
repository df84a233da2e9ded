/** How far pages are from the start as links are added to a site: only ever nearer. */
import type { Incoming, PageGraph } from '../reach';

/** Deeper than any page: of those without a route. */
export const NO_ROUTE = 2 ** 30;

export interface NewLink {
  source: number;
  target: number;
}

/** The graph of a visitor, its depths, and links that are added to it. */
export interface Spread {
  /** Clicks from the start of each page; {@link NO_ROUTE} without a route. */
  readonly depth: Int32Array;
  /** Adds a link; what is nearer by it is so at once. */
  add: (link: NewLink) => void;
  /**
   * The wanted pages that come within the limit if a page stood at some depth.
   * @param found receives them; only counted without it
   */
  gain: (page: number, depth: number, found?: number[]) => number;
}

/**
 * @param depths clicks from the start; −1 without a route
 * @param wanted 1 for the pages that are to come within the limit
 * @param need for each page the clicks to the nearest wanted page that is too deep; {@link NO_ROUTE} without one
 */
export function spreading(
  graph: PageGraph,
  depths: Int32Array,
  { within, wanted, need }: { within: number; wanted: Uint8Array; need: Int32Array },
): Spread {
  const { offsets, targets, hop } = graph;
  const depth = depths.map((clicks) => (clicks < 0 ? NO_ROUTE : clicks));
  const added = new Map<number, number[]>();
  const queue: number[] = [];

  /** Goes on from pages that have come nearer; labels are corrected until none improves. */
  function spread(at: Int32Array, isOfUse: (page: number, clicks: number) => boolean): void {
    const reach = (page: number, clicks: number) => {
      if (clicks >= at[page] || !isOfUse(page, clicks)) return;
      at[page] = clicks;
      queue.push(page);
    };
    for (let i = 0; i < queue.length; i++) {
      const page = queue[i];
      const clicks = at[page];
      if (hop[page] >= 0) reach(hop[page], clicks);
      const stop = offsets[page + 1];
      for (let link = offsets[page]; link < stop; link++) reach(targets[link], clicks + 1);
      for (const target of added.get(page) ?? []) reach(target, clicks + 1);
    }
  }

  const tried = depth.slice();
  return {
    depth,
    add({ source, target }) {
      added.set(source, [...(added.get(source) ?? []), target]);
      if (depth[source] + 1 >= depth[target]) return;
      depth[target] = depth[source] + 1;
      queue.length = 0;
      queue.push(target);
      spread(depth, () => true);
      for (const page of queue) tried[page] = depth[page];
    },
    gain(page, clicks, found) {
      if (clicks >= depth[page] || clicks + need[page] > within) return 0;
      tried[page] = clicks;
      queue.length = 0;
      queue.push(page);
      spread(tried, (other, at) => at + need[other] <= within);
      let gained = 0;
      // A page may have come nearer several times.
      for (const other of queue) {
        if (tried[other] === depth[other]) continue;
        if (wanted[other] && depth[other] > within) {
          gained++;
          found?.push(other);
        }
        tried[other] = depth[other];
      }
      return gained;
    },
  };
}

/** The clicks from each page to the nearest of some pages, up to a limit; {@link NO_ROUTE} where it is farther. */
export function clicksTo(
  { count, hop }: Pick<PageGraph, 'count' | 'hop'>,
  { offsets, sources }: Incoming,
  pages: readonly number[],
  most: number,
): Int32Array {
  const clicks = new Int32Array(count).fill(NO_ROUTE);
  const queue: number[] = [...pages];
  for (const page of pages) clicks[page] = 0;
  for (let i = 0; i < queue.length; i++) {
    const page = queue[i];
    for (let at = offsets[page]; at < offsets[page + 1]; at++) {
      const source = sources[at];
      const far = clicks[page] + (hop[source] === page ? 0 : 1);
      if (far > most || far >= clicks[source]) continue;
      clicks[source] = far;
      queue.push(source);
    }
  }
  return clicks;
}
