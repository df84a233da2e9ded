/** Pages that need links from running text. */
import { INDEXABLE } from '../facts';
import type { View } from '../view';

/** Links from running text that a page should have, while nobody says otherwise. */
export const LINKS_WANTED = 3;

/**
 * The pages that may be indexed and that fewer pages than wanted link to from running text, but for start pages: key
 * pages first, then those without any route, then by how few links they have.
 */
export function pagesInNeed(view: View, wanted = LINKS_WANTED): number[] {
  const [verdict, depth, linking] = [view.column('verdict'), view.column('depth'), view.column('pages_linking_text')];
  const key = view.keys ? view.column('key') : null;
  const found: number[] = [];
  for (let page = 0; page < view.count; page++)
    if (verdict[page] === INDEXABLE && depth[page] !== 0 && linking[page] < wanted) found.push(page);
  const rank = (page: number) => (key?.[page] === 1 ? 0 : 1e6) + (depth[page] < 0 ? 0 : 1e3) + linking[page];
  return found.sort((a, b) => rank(a) - rank(b) || a - b);
}
