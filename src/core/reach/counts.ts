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

/** Counts click links. `linksOut` counts all of a page, `externalLinks` those of them that lead outside. */
export function countLinks({ count, offsets, targets, cost }: LinkGraph): LinkCounts {
  const linksIn = new Int32Array(count);
  const linksOut = new Int32Array(count);
  const pagesLinking = new Int32Array(count);
  const pagesLinked = new Int32Array(count);
  const externalLinks = new Int32Array(count);
  /** The last page that was seen to link to each page: a cheap test for "counted already". */
  const lastLinking = new Int32Array(count).fill(-1);
  for (let page = 0; page < count; page++)
    for (let link = offsets[page]; link < offsets[page + 1]; link++) {
      const target = targets[link];
      if (cost[link] !== CLICK || target === page) continue;
      linksOut[page]++;
      if (target >= count) {
        externalLinks[page]++;
        continue;
      }
      linksIn[target]++;
      if (lastLinking[target] === page) continue;
      lastLinking[target] = page;
      pagesLinked[page]++;
      pagesLinking[target]++;
    }
  return { linksIn, linksOut, pagesLinking, pagesLinked, externalLinks };
}
