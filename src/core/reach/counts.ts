/** How many links lead to each page and from it, and how many pages they join. */
import { orderByKey } from '../grouping';
import { CLICK_KIND, isContentPlacement, templatePages } from '../links';
import type { Base, ColumnReader } from '../snapshot';

/** Counts of click links, one entry a page; links of a page to itself do not count. */
export interface LinkCounts {
  /** Occurrences: of links to a page, of links on it, and of those on it that lead outside. */
  linksIn: Int32Array;
  linksOut: Int32Array;
  externalLinks: Int32Array;
  /** Different pages of the site that link to a page, and that it links to. */
  pagesLinking: Int32Array;
  pagesLinked: Int32Array;
  /**
   * Different pages that a page links to from its own content: navigation (src/core/links/navigation.ts) does not
   * count, nor do links to what a template links to.
   */
  contentLinks: Int32Array;
}

type CountedBase = Pick<Base, 'count' | 'links'> & { column: ColumnReader<'html'> };

/** Counts click links. */
export function countLinks(base: CountedBase): LinkCounts {
  const {
    count,
    links: { offsets, target: targets, kind, placement },
  } = base;
  const linksOut = new Int32Array(count);
  const externalLinks = new Int32Array(count);
  const ends = new Uint32Array(targets.length);
  /** The page that each link is on above a bit, which is 1 in its content. */
  const found = new Uint32Array(targets.length);
  let inside = 0;
  for (let page = 0; page < count; page++)
    for (let link = offsets[page]; link < offsets[page + 1]; link++) {
      const target = targets[link];
      if (kind[link] !== CLICK_KIND || target === page) continue;
      linksOut[page]++;
      if (target >= count) {
        externalLinks[page]++;
        continue;
      }
      ends[inside] = target;
      found[inside++] = (page << 1) | Number(isContentPlacement[placement[link]]);
    }
  const sources = found.subarray(0, inside);
  const begins = orderByKey(ends.subarray(0, inside), sources, count);
  const linksIn = new Int32Array(count).map((_, page) => begins[page + 1] - begins[page]);
  return { linksIn, linksOut, externalLinks, ...countPairs(base, begins, sources) };
}

/**
 * Counts the pairs of pages that links join: those from one page to another come one after the other.
 * @param sources by target: those of page `i` from `begins[i]` to `begins[i + 1] − 1`
 */
function countPairs(base: CountedBase, begins: Uint32Array, sources: Uint32Array) {
  const { count } = base;
  const pagesLinking = new Int32Array(count);
  // Side by side, as they are reached together and sources lie all over memory.
  const ofSource = new Int32Array(2 * count);
  const read = base.column('html').reduce((sum, one) => sum + Number(one === 1), 0);
  const most = templatePages(read);
  for (let page = 0; page < count; page++) {
    const [from, to] = [begins[page], begins[page + 1]];
    // Each pair is counted at the last of its links.
    const isLast = (at: number) => at + 1 === to || sources[at + 1] >>> 1 !== sources[at] >>> 1;
    let content = 0;
    let inContent = 0;
    for (let at = from; at < to; at++) {
      inContent |= sources[at] & 1;
      if (!isLast(at)) continue;
      pagesLinking[page]++;
      content += inContent;
      inContent = 0;
    }
    const isOfTemplate = content >= most;
    for (let at = from; at < to; at++) {
      inContent |= sources[at] & 1;
      if (!isLast(at)) continue;
      const own = 2 * (sources[at] >>> 1);
      ofSource[own]++;
      if (!isOfTemplate) ofSource[own + 1] += inContent;
      inContent = 0;
    }
  }
  const column = (which: number) => new Int32Array(count).map((_, page) => ofSource[2 * page + which]);
  return { pagesLinking, pagesLinked: column(0), contentLinks: column(1) };
}
