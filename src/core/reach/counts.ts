import { CLICK } from './graph';
import type { LinkGraph } from './graph';

export interface LinkCounts {
  /** Occurrences of click links, self-links apart. */
  linksIn: Int32Array;
  linksOut: Int32Array;
  /** Distinct inside pages, self-links apart. */
  pagesLinking: Int32Array;
  pagesLinked: Int32Array;
  /** Occurrences of click links that lead outside. */
  externalLinks: Int32Array;
}

/** What is counted by target: links, pages, and, from 1, the page that was last seen to link there. */
const [LINKS, PAGES, LAST, EACH] = [0, 1, 2, 4];

/** Counts click links. `linksOut` counts all of a page, `externalLinks` those of them that lead outside. */
export function countLinks({ count, offsets, targets, cost }: LinkGraph): LinkCounts {
  const linksOut = new Int32Array(count);
  const pagesLinked = new Int32Array(count);
  const externalLinks = new Int32Array(count);
  // Side by side, as they are reached together and pages lie all over memory.
  const ofTarget = new Int32Array(count * EACH);
  for (let page = 0; page < count; page++)
    for (let link = offsets[page]; link < offsets[page + 1]; link++) {
      const target = targets[link];
      if (cost[link] !== CLICK || target === page) continue;
      linksOut[page]++;
      if (target >= count) {
        externalLinks[page]++;
        continue;
      }
      const at = target * EACH;
      ofTarget[at + LINKS]++;
      if (ofTarget[at + LAST] === page + 1) continue;
      ofTarget[at + LAST] = page + 1;
      pagesLinked[page]++;
      ofTarget[at + PAGES]++;
    }
  const column = (which: number) => new Int32Array(count).map((_, page) => ofTarget[page * EACH + which]);
  return { linksIn: column(LINKS), linksOut, pagesLinking: column(PAGES), pagesLinked, externalLinks };
}
