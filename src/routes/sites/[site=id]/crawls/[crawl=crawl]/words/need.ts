/** Pages that need links from running text, and pages that could give some. */
import { INDEXABLE } from '$core/facts';
import { pagesInNeed } from '$core/places';
import { factAt } from '$core/snapshot';
import type { TextIndex } from '$core/textIndex';
import type { View } from '$core/view';
import { listed, named } from './listed';
import type { Asked } from './listed';

/**
 * The pages that need links.
 * @param drafted the crawl with the edits of the draft; a page that has enough links there is done
 */
export function inNeed(view: View, index: TextIndex | null, drafted: View | null, wanted: number, { find }: Asked) {
  const need = pagesInNeed(view, wanted, index?.goodPlaces);
  const linking = (drafted ?? view).column('pages_linking_text');
  const isDone = (page: number) => linking[page] >= wanted;
  return {
    ...listed(need, find, (page) => ({
      ...named(view, page),
      linking: linking[page],
      depth: factAt(view, 'depth', page) as number | null,
      good: index?.goodPlaces.get(page) ?? null,
      isDone: isDone(page),
    })),
    left: need.filter((page) => !isDone(page)).length,
    all: need.length,
  };
}

/** The pages whose text can be linked from, those first that have most share to give. */
export function givers(view: View, { find }: Asked) {
  const [verdict, share] = [view.column('verdict'), view.column('share')];
  const pages = Array.from(verdict.keys()).filter((page) => verdict[page] === INDEXABLE);
  pages.sort((a, b) => share[b] - share[a] || a - b);
  return listed(pages, find, (page) => ({
    ...named(view, page),
    figure: share[page],
    linked: factAt(view, 'pages_linked', page) as number | null,
  }));
}
