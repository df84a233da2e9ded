/** Links that come from one template or block, so that one edit mends them all (docs/MEANINGS.md, "Anchors"). */
import { landmarks, linkKinds } from '../links';
import type { Landmark } from '../links';
import { addressAt, textAt } from '../snapshot';
import type { Snapshot } from '../snapshot';
import { sourcesOfLinks } from '../selection';

/** Equal links: the same target, words and place in the page, on one or many pages. */
export interface Edit {
  target: string;
  anchor: string;
  landmark: Landmark;
  /** Elements above the link, as all of them have them. */
  path: string;
  links: number;
  pages: number;
  /** Where to look: the first page that has it, with line and column. */
  example: { page: string; title: string | null; line: number; column: number };
}

/** Numbers links so that those of one edit have the same number. */
export function editNumbers({ links }: Snapshot, chosen: Iterable<number>): { edits: number; of: Map<number, number> } {
  const numbers = new Map<string, number>();
  const of = new Map<number, number>();
  for (const link of chosen) {
    // The path ends in the landmark the link stands in, but for those given by a role.
    const key = `${links.target[link]} ${links.anchor[link]} ${links.path[link]} ${links.landmark[link]} ${links.kind[link]}`;
    let number = numbers.get(key);
    if (number === undefined) numbers.set(key, (number = numbers.size));
    of.set(link, number);
  }
  return { edits: numbers.size, of };
}

/**
 * Groups links by the edit that mends them, those on most pages first.
 * @param chosen numbers of links, ascending
 */
export function groupByEdit(snapshot: Snapshot, chosen: Iterable<number>): Edit[] {
  const { links, phrases } = snapshot;
  const all = [...chosen];
  const { of } = editNumbers(snapshot, all);
  const source = sourcesOfLinks(snapshot);
  const edits: Edit[] = [];
  const lastPage: number[] = [];
  for (const link of all) {
    const number = of.get(link)!;
    const page = source[link];
    edits[number] ??= {
      target: addressAt(snapshot, links.target[link]),
      anchor: phrases[links.anchor[link]],
      landmark: landmarks[links.landmark[link]],
      path: phrases[links.path[link]],
      links: 0,
      pages: 0,
      example: { page: addressAt(snapshot, page), title: textAt(snapshot, 'title', page), line: links.line[link], column: links.column[link] }, // prettier-ignore
    };
    edits[number].links++;
    if (lastPage[number] !== page) edits[number].pages++;
    lastPage[number] = page;
  }
  return edits.sort((a, b) => b.pages - a.pages || b.links - a.links);
}

const CLICK = linkKinds.indexOf('click');

/** Links that recur with the same target, words and placement: menus, footers, teasers. */
export function linkBlocks(snapshot: Snapshot, leastPages = 2): Edit[] {
  const { kind } = snapshot.links;
  const clicks = Array.from(kind.keys()).filter((link) => kind[link] === CLICK);
  return groupByEdit(snapshot, clicks).filter(({ pages }) => pages >= leastPages);
}
