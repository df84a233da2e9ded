import { clickDepths, incomingPages, pageGraph } from '../reach';
import type { Depths, Incoming, PageGraph } from '../reach';
import { incomingLinks, visitorGraph } from './snapshot';
import type { IncomingLinks, Snapshot } from './snapshot';

/** A snapshot as a visitor walks it. What takes memory is made when it is first asked for. */
export interface Walk {
  readonly graph: PageGraph;
  readonly depths: Depths;
  readonly pages: Incoming;
  readonly incoming: IncomingLinks;
}

const walks = new WeakMap<Snapshot, Walk>();

/** The walk of a snapshot, kept as long as the snapshot is. */
export function walkOf(snapshot: Snapshot): Walk {
  let walk = walks.get(snapshot);
  if (!walk) {
    const graph = once(() => pageGraph(visitorGraph(snapshot.count, snapshot.links)));
    const depths = once(() => clickDepths(graph(), snapshot.starts));
    const pages = once(() => incomingPages(graph()));
    const incoming = once(() => incomingLinks(snapshot));
    walk = {
      get graph() {
        return graph();
      },
      get depths() {
        return depths();
      },
      get pages() {
        return pages();
      },
      get incoming() {
        return incoming();
      },
    };
    walks.set(snapshot, walk);
  }
  return walk;
}

function once<T>(make: () => T): () => T {
  let made: { value: T } | undefined;
  return () => (made ??= { value: make() }).value;
}
