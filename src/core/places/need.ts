/** Pages that need links from running text. */
import { INDEXABLE } from '../facts';
import type { View } from '../view';

/** Links from running text that a page should have, while nobody says otherwise. */
export const LINKS_WANTED = 3;

/** Compares by the first numbers that differ. */
function inOrder(a: readonly number[], b: readonly number[]): number {
  const at = a.findIndex((one, i) => one !== b[i]);
  return at < 0 ? 0 : a[at] - b[at];
}

/**
 * The pages that may be indexed and that fewer pages than wanted link to from running text, but for start pages: key
 * pages first, then those with the most good places, those without any route, and by how few links they have.
 * @param good places for links to a page; of none where they have not been counted
 */
export function pagesInNeed(
  view: View,
  wanted = LINKS_WANTED,
  good: ReadonlyMap<number, number> = new Map(),
): number[] {
  const [verdict, depth, linking] = [view.column('verdict'), view.column('depth'), view.column('pages_linking_text')];
  const key = view.keys ? view.column('key') : null;
  const found: number[] = [];
  for (let page = 0; page < view.count; page++)
    if (verdict[page] === INDEXABLE && depth[page] !== 0 && linking[page] < wanted) found.push(page);
  const rank = (page: number) => [
    key?.[page] === 1 ? 0 : 1,
    wanted - Math.min(wanted, good.get(page) ?? 0),
    depth[page] < 0 ? 0 : 1,
    linking[page],
    page,
  ];
  return found
    .map(rank)
    .sort(inOrder)
    .map((of) => of[of.length - 1]);
}
