import { anchorFaults, CLICK_KIND, MISSING_FRAGMENT } from '../links';
import type { Base, Columns, IncomingLinks } from '../snapshot';

const ANCHOR_FAULTS = (1 << anchorFaults.length) - 1;

/** How many different words lead to each page, and the faults among the links with them. */
export function anchorColumns(
  { count, links, phrases }: Pick<Base, 'count' | 'links' | 'phrases'>,
  incoming: IncomingLinks,
  faults: Uint16Array,
) {
  const anchors = new Int32Array(count);
  const found = new Int32Array(count);
  /** The last page that each phrase was seen to lead to. */
  const last = new Int32Array(phrases.length).fill(-1);
  for (let page = 0; page < count; page++)
    for (let i = incoming.offsets[page]; i < incoming.offsets[page + 1]; i++) {
      const link = incoming.links[i];
      if (links.kind[link] !== CLICK_KIND || incoming.source[link] === page) continue;
      found[page] |= faults[link] & ANCHOR_FAULTS;
      if (last[links.anchor[link]] === page) continue;
      last[links.anchor[link]] = page;
      anchors[page]++;
    }
  return { anchors, anchor_faults: found };
}

/** How many links of each page have a fragment that names nothing; −1 for pages that were not read. */
export function missingFragments({
  count,
  links,
  columns,
}: Pick<Base, 'count' | 'links'> & { columns: Columns<'html'> }) {
  const counts = new Int32Array(count).fill(-1);
  for (let page = 0; page < count; page++) {
    if (columns.html[page] !== 1) continue;
    counts[page] = 0;
    for (let link = links.offsets[page]; link < links.offsets[page + 1]; link++)
      if (links.kind[link] === CLICK_KIND && links.marks[link] & MISSING_FRAGMENT) counts[page]++;
  }
  return counts;
}
