/** Whether pages can be reached (docs/MEANINGS.md, "Reach"). */
import { heldBack, reaches } from '../facts';

/** Who reads a site: a visitor follows any link that can be clicked, a search crawler obeys nofollow and robots.txt. */
export const readers = ['visitor', 'crawler'] as const;
export type Reader = (typeof readers)[number];

/** The fact that holds the depth for a reader. */
export const depthFact = (reader: Reader) => (reader === 'visitor' ? 'depth' : 'crawler_depth');
/** The selection of the pages that a reader has no route to. */
export const noRouteSelection = (reader: Reader) => (reader === 'visitor' ? 'not reached' : 'crawler_depth is unknown');

const [REACHED, ORPHAN, ISLAND] = reaches.keys();

/** The reach of every page, as an index into `reaches`. */
export const reachOf = (depth: Int32Array, pagesLinking: Int32Array): Int32Array =>
  depth.map((clicks, page) => (clicks >= 0 ? REACHED : pagesLinking[page] === 0 ? ORPHAN : ISLAND));

const [NOFOLLOW, ROBOTS, BOTH] = heldBack.keys();

/**
 * What keeps a search crawler from pages that a visitor reaches.
 * @param visitor depth as visitor
 * @param crawler depth as search crawler
 * @param pastNofollow depth of a crawler that follows every link and obeys robots.txt
 * @param pastRobots depth of a crawler that obeys nofollow and ignores robots.txt
 * @returns indexes into `heldBack`; −1 for all other pages
 */
export const heldBackBy = (
  visitor: Int32Array,
  crawler: Int32Array,
  pastNofollow: Int32Array,
  pastRobots: Int32Array,
) =>
  visitor.map((depth, page) => {
    if (depth < 0 || crawler[page] >= 0) return -1;
    return pastNofollow[page] >= 0 ? NOFOLLOW : pastRobots[page] >= 0 ? ROBOTS : BOTH;
  });
