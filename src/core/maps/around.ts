/** What is around one page: those that it links to, those that link to it, what hangs on it, and the way to it. */
import { everywherePages } from '../communities';
import { clickDepths, routeTo, unreachedWithout } from '../reach';
import type { Depths, Incoming, PageGraph } from '../reach';
import { numbersOf, setBit } from '../selection';
import type { Bits } from '../selection';

export interface Neighbour {
  page: number;
  /** Whether there is a link back. */
  isMutual: boolean;
  /** Whether so many pages link to where it leads that it says little. */
  isEverywhere: boolean;
}

export interface Around {
  /** In the order of the page's links. */
  out: Neighbour[];
  in: Neighbour[];
}

/** The neighbours of a page. */
export function neighboursOf(graph: PageGraph, incoming: Incoming, page: number): Around {
  const everywhere = everywherePages(graph);
  const out = graph.targets.subarray(graph.offsets[page], graph.offsets[page + 1]);
  const sources = incoming.sources.subarray(incoming.offsets[page], incoming.offsets[page + 1]);
  const [outs, ins] = [new Set(out), new Set(sources)];
  return {
    out: Array.from(out, (to) => ({ page: to, isMutual: ins.has(to), isEverywhere: everywhere[to] === 1 })),
    in: Array.from(sources, (from) => ({ page: from, isMutual: outs.has(from), isEverywhere: everywhere[page] === 1 })),
  };
}

/** The pages of a shortest way between two, both among them; empty when there is none. */
export const wayBetween = (
  graph: PageGraph,
  incoming: Incoming,
  share: ArrayLike<number>,
  [from, to]: readonly [number, number],
) => routeTo(clickDepths(graph, [from]), incoming, to, share);

/** The pages that lose every route from the start when one goes. */
export function hangingOn(graph: PageGraph, depths: Depths, page: number): Uint32Array {
  const gone: Bits = { size: graph.count, words: new Uint32Array(Math.ceil(graph.count / 32)) };
  setBit(gone, page);
  const words = unreachedWithout(graph, depths, gone.words);
  return numbersOf({ size: graph.count, words }).filter((one) => one !== page);
}
