/** Whether pages can be reached (docs/MEANINGS.md, "Reach"). */

/** Who reads a site: a visitor follows any link that can be clicked, a search crawler keeps to nofollow and robots.txt. */
export const readers = ['visitor', 'crawler'] as const;
export type Reader = (typeof readers)[number];

/** The fact that holds the depth for a reader. */
export const depthFact = (reader: Reader) => (reader === 'visitor' ? 'depth' : 'crawler_depth');
/** The selection of what a reader has no route to. */
export const lostSelection = (reader: Reader) => (reader === 'visitor' ? 'not reached' : 'crawler_depth is unknown');

export const reaches = ['reached', 'orphan', 'island'] as const;
export type Reach = (typeof reaches)[number];

/** `reached`; `orphan`: no inside page links to it; `island`: only unreached pages do. Indexes into {@link reaches}. */
export function reachOf(depth: Int32Array, pagesLinking: Int32Array): Uint8Array {
  return Uint8Array.from(depth, (clicks, page) => (clicks >= 0 ? 0 : pagesLinking[page] === 0 ? 1 : 2));
}

/** Why a search crawler has no route to a page that a visitor reaches: nofollow, robots.txt, or one as much as the other. */
export const heldBack = ['nofollow', 'robots', 'both'] as const;

/**
 * What keeps a search crawler from pages that a visitor reaches.
 * @param visitor depth as visitor
 * @param crawler depth as search crawler
 * @param pastNofollow depth of a crawler that follows every link and keeps to robots.txt
 * @param pastRobots depth of a crawler that keeps to nofollow and looks past robots.txt
 * @returns indexes into {@link heldBack}; −1 for all other pages
 */
export const heldBackBy = (
  visitor: Int32Array,
  crawler: Int32Array,
  pastNofollow: Int32Array,
  pastRobots: Int32Array,
) =>
  visitor.map((depth, page) => {
    if (depth < 0 || crawler[page] >= 0) return -1;
    return pastNofollow[page] >= 0 ? 0 : pastRobots[page] >= 0 ? 1 : 2;
  });
