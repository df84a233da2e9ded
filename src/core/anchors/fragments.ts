import { CLICK_KIND, MISSING_FRAGMENT } from '../links';
import type { Base, ColumnReader } from '../snapshot';

/** How many links of each page have a fragment that names nothing; −1 for pages that were not read. */
export function missingFragments({
  count,
  links: { offsets, kind, marks },
  column,
}: Pick<Base, 'count' | 'links'> & { column: ColumnReader<'html'> }) {
  const html = column('html');
  const counts = new Int32Array(count).fill(-1);
  for (let page = 0; page < count; page++) {
    if (html[page] !== 1) continue;
    counts[page] = 0;
    for (let link = offsets[page]; link < offsets[page + 1]; link++)
      if (kind[link] === CLICK_KIND && marks[link] & MISSING_FRAGMENT) counts[page]++;
  }
  return counts;
}
