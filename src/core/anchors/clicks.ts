/** The click links of a site in the order of their targets. */
import { orderByKey } from '../grouping';
import { CLICK_KIND, isContentPlacement } from '../links';
import { nofollowRels } from '../reach';
import type { FaultBase } from './faultBase';
import type { Words } from './phrases';

/**
 * The click links between different inside pages, by their targets: those to page `i` are `entries[offsets[i]]` to
 * `entries[offsets[i + 1] − 1]`, each the number of its phrase above four bits. Gone through in the order in which
 * memory lies, many millions of links take a fraction of the time.
 */
export interface Clicks {
  offsets: Uint32Array;
  entries: Uint32Array;
}
export const WITHHELD = 1;
/** The link stands in the content of its page and leads to a page as a whole, or to a part of it. */
export const CONTENT = 2;
export const PART = 4;
/** Its words must tell the page from others. */
export const COMPARED = 8;
export const PHRASE_SHIFT = 4;

/**
 * Sorts the click links by their targets.
 * @param isCompared whether the words of a link must tell its target from others
 */
export function clicksByTarget(
  { count, links, phrases }: FaultBase,
  { apart }: Words,
  isCompared: (page: number, link: number) => boolean,
): Clicks {
  const { offsets, target: targets, kind, anchor, rel, placement, fragment, above } = links;
  const nofollowRel = nofollowRels(phrases);
  const ends = new Uint32Array(targets.length);
  const found = new Uint32Array(targets.length);
  let clicks = 0;
  for (let page = 0; page < count; page++)
    for (let link = offsets[page]; link < offsets[page + 1]; link++) {
      const target = targets[link];
      if (kind[link] !== CLICK_KIND || target >= count || target === page) continue;
      // A page that withholds all its links says nothing of any one of them.
      const withheld = nofollowRel[rel[link]] === 1 ? WITHHELD : 0;
      const isContent = isContentPlacement[placement[link]] && !apart[above[link]];
      const content = isContent ? (fragment[link] === 0 ? CONTENT : PART) : 0;
      const compared = content === CONTENT && isCompared(page, link) ? COMPARED : 0;
      ends[clicks] = target;
      found[clicks++] = (anchor[link] << PHRASE_SHIFT) | withheld | content | compared;
    }
  const entries = found.subarray(0, clicks);
  return { offsets: orderByKey(ends.subarray(0, clicks), entries, count), entries };
}
