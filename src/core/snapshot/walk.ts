import { clickDepths, incomingPages, pageGraph } from '../reach';
import type { Depths, Incoming, PageGraph } from '../reach';
import { incomingLinks, visitorGraph } from './snapshot';
import type { IncomingLinks, Snapshot } from './snapshot';

/** A snapshot as a visitor walks it, made ready for questions about routes and neighbours. */
export interface Walk {
  graph: PageGraph;
  depths: Depths;
  pages: Incoming;
  incoming: IncomingLinks;
}

const walks = new WeakMap<Snapshot, Walk>();

/** The walk of a snapshot; made once and kept as long as the snapshot is. */
export function walkOf(snapshot: Snapshot): Walk {
  let walk = walks.get(snapshot);
  if (!walk) {
    const graph = pageGraph(visitorGraph(snapshot.count, snapshot.links));
    const depths = clickDepths(graph, snapshot.starts);
    walks.set(snapshot, (walk = { graph, depths, pages: incomingPages(graph), incoming: incomingLinks(snapshot) }));
  }
  return walk;
}
