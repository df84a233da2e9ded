import { clickDepths, dominators, incomingPages, pageGraph } from '../reach';
import type { Depths, Incoming, PageGraph, Reader } from '../reach';
import { crawlerGraph, crawlerStarts, incomingLinks, visitorGraph } from './snapshot';
import type { IncomingLinks, Snapshot } from './snapshot';

/** A snapshot as a reader walks it. What takes memory is made when it is first asked for. */
export interface Walk {
  readonly starts: number[];
  readonly graph: PageGraph;
  readonly depths: Depths;
  /** Who leads to whom. */
  readonly pages: Incoming;
  /** The nearest page that every way to a page passes; negative where there is none. */
  readonly dominator: Int32Array;
}

/** Keeps what is made of a snapshot as long as the snapshot is. */
function kept<T>(make: (snapshot: Snapshot) => T): (snapshot: Snapshot) => T {
  const made = new WeakMap<Snapshot, { value: T }>();
  return (snapshot) => {
    let entry = made.get(snapshot);
    if (!entry) made.set(snapshot, (entry = { value: make(snapshot) }));
    return entry.value;
  };
}

/** The links of a snapshot by their targets. */
export const incomingOf: (snapshot: Snapshot) => IncomingLinks = kept(incomingLinks);

function walk(snapshot: Snapshot, reader: Reader): Walk {
  const starts = reader === 'visitor' ? snapshot.starts : crawlerStarts(snapshot);
  const graph = once(() => {
    const visitor = visitorGraph(snapshot.count, snapshot.links);
    return pageGraph(reader === 'visitor' ? visitor : crawlerGraph(snapshot, visitor));
  });
  const depths = once(() => clickDepths(graph(), starts));
  const pages = once(() => incomingPages(graph()));
  const dominator = once(() => dominators(graph(), pages(), depths(), starts));
  return {
    starts,
    get graph() {
      return graph();
    },
    get depths() {
      return depths();
    },
    get pages() {
      return pages();
    },
    get dominator() {
      return dominator();
    },
  };
}
const walks = {
  visitor: kept((snapshot) => walk(snapshot, 'visitor')),
  crawler: kept((snapshot) => walk(snapshot, 'crawler')),
};

/** The walk of a reader through a snapshot, kept as long as the snapshot is. */
export const walkOf = (snapshot: Snapshot, reader: Reader = 'visitor'): Walk => walks[reader](snapshot);

function once<T>(make: () => T): () => T {
  let made: { value: T } | undefined;
  return () => (made ??= { value: make() }).value;
}
