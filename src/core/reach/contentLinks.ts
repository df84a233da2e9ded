/** What pages link to by themselves, apart from the navigation that they share. */
import { CLICK_KIND, placements } from '../links';
import type { Base, Columns } from '../snapshot';

const isContent = placements.map((name) => name === 'main' || name === 'none');
/** A page that so many pages link to, and so large a part of all, is linked by their template, wherever the link stands. */
const TEMPLATE_PAGES = 20;
const TEMPLATE_PART = 0.2;

/** Calls back for each page and each other page of those asked for that its content links to, once. */
function eachContentLink(
  { count, links }: Pick<Base, 'count' | 'links'>,
  isAskedFor: Uint8Array,
  visit: (page: number, target: number) => void,
): void {
  const { offsets, target: targets, kind, placement } = links;
  const last = new Int32Array(count).fill(-1);
  for (let page = 0; page < count; page++)
    for (let link = offsets[page]; link < offsets[page + 1]; link++) {
      const target = targets[link];
      if (kind[link] !== CLICK_KIND || !isContent[placement[link]] || target >= count || target === page) continue;
      if (isAskedFor[target] === 0 || last[target] === page) continue;
      last[target] = page;
      visit(page, target);
    }
}

/**
 * How many different pages each page links to from its own content: links in a header, navigation, aside or footer do not
 * count, nor those to pages that a fifth of all pages, and at least twenty, link to.
 * @returns −1 for pages that were not read
 */
export function contentLinks(base: Pick<Base, 'count' | 'links'> & { columns: Columns<'html'> }): Int32Array {
  const {
    count,
    columns: { html },
  } = base;
  const linking = new Uint32Array(count);
  const counts = new Int32Array(count);
  eachContentLink(base, new Uint8Array(count).fill(1), (page, target) => {
    linking[target]++;
    counts[page]++;
  });
  const read = html.reduce((sum, one) => sum + Number(one === 1), 0);
  const most = Math.max(TEMPLATE_PAGES, TEMPLATE_PART * read);
  const ofTemplate = new Uint8Array(count).map((_, page) => Number(linking[page] >= most));
  if (ofTemplate.includes(1)) eachContentLink(base, ofTemplate, (page) => counts[page]--);
  return counts.map((links, page) => (html[page] === 1 ? links : -1));
}
