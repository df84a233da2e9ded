/** The graphs that the two readers of a site walk, made of its links. */
import { verdicts } from '../facts';
import { costsNoClick, linkKinds, relSaysNofollow } from '../links';
import { memoOf } from '../snapshot';
import type { Base, ColumnReader, Read, Reading } from '../snapshot';
import { clickDepths } from './depths';
import type { Depths } from './depths';
import { dominators } from './gates';
import { CLICK, incomingPages, NO_CLICK, NO_WAY, pageGraph } from './graph';
import type { Incoming, LinkGraph, PageGraph } from './graph';
import type { Reader } from './reach';

const costOfKind = Uint8Array.from(linkKinds, (name) =>
  name === 'click' ? CLICK : costsNoClick(name) ? NO_CLICK : NO_WAY,
);

/** The graph that a visitor walks: every click link, redirects without cost, declared relations not at all. */
export function visitorGraph({ count, links }: Pick<Base, 'count' | 'links'>): LinkGraph {
  const { offsets, target, kind } = links;
  // A loop: a call for each of many millions of links takes ten times as long.
  const cost = new Uint8Array(kind.length);
  for (let link = 0; link < cost.length; link++) cost[link] = costOfKind[kind[link]];
  return { count, offsets, targets: target, cost };
}

/** What a crawler obeys; a search crawler obeys both. */
export interface Obeyed {
  nofollow: boolean;
  robots: boolean;
}

/** What the search crawler's graph is made of. */
export interface CrawlerBase extends Pick<Base, 'count' | 'links' | 'phrases' | 'starts'> {
  column: ColumnReader<'page_nofollow' | 'verdict'>;
}

const BLOCKED = verdicts.indexOf('blocked');

/** For each phrase 1 when, as a rel, it says that the link is not to be followed. */
export const nofollowRels = (phrases: readonly string[]): Uint8Array =>
  new Uint8Array(phrases.length).map((_, phrase) => Number(relSaysNofollow(phrases[phrase])));

/** The graph of a search crawler: the visitor's without links it does not follow and pages it does not ask for. */
export function crawlerGraph(base: CrawlerBase, obeyed: Obeyed = { nofollow: true, robots: true }): LinkGraph {
  const { links, phrases, column } = base;
  const pageNofollow = column('page_nofollow');
  const verdict = column('verdict');
  const nofollow = nofollowRels(phrases);
  const visitor = visitorGraph(base);
  // The visitor's costs were made for this call.
  const { cost, offsets, targets } = visitor;
  const { rel } = links;
  for (let page = 0; page < visitor.count; page++) {
    const closedPage = verdict[page] === BLOCKED;
    for (let link = offsets[page]; link < offsets[page + 1]; link++) {
      const withheld = cost[link] === CLICK && (pageNofollow[page] === 1 || nofollow[rel[link]] === 1);
      const closed = closedPage || verdict[targets[link]] === BLOCKED;
      if ((obeyed.nofollow && withheld) || (obeyed.robots && closed)) cost[link] = NO_WAY;
    }
  }
  return visitor;
}

/** Whether a search crawler goes wherever a visitor does, as no page is closed to it and no link withheld from it. */
export const crawlerIsVisitor = ({ phrases, column }: Omit<CrawlerBase, 'links'>): boolean =>
  !column('verdict').includes(BLOCKED) && !column('page_nofollow').includes(1) && !nofollowRels(phrases).includes(1);

/** Where a search crawler begins: at the start pages that robots.txt leaves open. */
export const crawlerStarts = ({ starts, column }: CrawlerBase): number[] =>
  starts.filter((page) => column('verdict')[page] !== BLOCKED);

/** A site as a reader walks it. */
export interface Walk {
  readonly starts: number[];
  readonly graph: PageGraph;
  readonly depths: Depths;
  /** Who leads to whom. */
  readonly pages: Incoming;
  /** The nearest page that every route to a page passes; negative where there is none. */
  readonly dominator: Int32Array;
}

const walkReads = {
  visitor: ['starts', 'targets'],
  crawler: ['starts', 'targets', 'follow', 'phrases', 'page_nofollow', 'verdict'],
} as const satisfies Record<Reader, readonly Read[]>;
/** What both readers' walks are made of. */
type WalkRead = (typeof walkReads)['crawler'][number];
type WalkBase = Reading<WalkRead>;

/** Makes the walks of one reader. What takes memory is made when it is first asked for. */
function walksOf(reader: Reader, startsOf: (base: WalkBase) => number[], links: (base: WalkBase) => LinkGraph) {
  const kept = <T>(make: (base: WalkBase) => T) => memoOf<WalkRead, T>(walkReads[reader], make);
  const graph = kept((base) => pageGraph(links(base)));
  const depths = kept((base) => clickDepths(graph(base), startsOf(base)));
  const pages = kept((base) => incomingPages(graph(base)));
  const dominator = kept((base) => dominators(graph(base), pages(base), depths(base), startsOf(base)));
  return (base: WalkBase): Walk => ({
    starts: startsOf(base),
    get graph() {
      return graph(base);
    },
    get depths() {
      return depths(base);
    },
    get pages() {
      return pages(base);
    },
    get dominator() {
      return dominator(base);
    },
  });
}

const walks = {
  visitor: walksOf('visitor', ({ starts }) => starts, visitorGraph),
  crawler: walksOf('crawler', crawlerStarts, crawlerGraph),
};

/** The walk of a reader through a site; what it holds is kept by what it is made of. */
export const walkOf = (base: WalkBase, reader: Reader = 'visitor'): Walk => walks[reader](base);
