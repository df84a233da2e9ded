/** The structure that was meant beside the one that was crawled. */
import { INDEXABLE } from '../facts';
import { walkOf } from '../reach';
import { addressAt, factAt, pageOf } from '../snapshot';
import type { View } from '../view';
import type { Outline } from './outline';

/**
 * What has become of a page that was meant: it is as meant; deeper than meant; not linked from its parent; without a
 * route; answering with something else than a page; or not known at all.
 */
export const meantStates = ['as_meant', 'deeper', 'elsewhere', 'no_route', 'no_page', 'missing'] as const;
export type MeantState = (typeof meantStates)[number];

export interface MeantPage {
  address: string;
  title: string;
  level: number;
  state: MeantState;
  /** Clicks from the start; null without a route, and where it is not known. */
  depth: number | null;
  /** Where it is found instead of below its parent: the page before it on its shortest route. */
  parent: string | null;
  /** What it answers in place of a page; null where it is not known. */
  status: number | null;
}

export interface StructureComparison {
  pages: MeantPage[];
  counts: Record<MeantState, number>;
  /** Pages that may be indexed and that nobody meant. */
  extra: string[];
  extraCount: number;
}

/** Compares what was meant with a crawl. @param mostExtra how many pages that nobody meant are named */
export function compareStructure(view: View, { pages: meant }: Outline, mostExtra: number): StructureComparison {
  const { graph } = walkOf(view);
  const known = meant.map(({ address }) => pageOf(view, address));
  const links = (from: number, to: number) =>
    graph.targets.subarray(graph.offsets[from], graph.offsets[from + 1]).includes(to);
  const counts = Object.fromEntries(meantStates.map((state) => [state, 0])) as Record<MeantState, number>;
  const stateOf = (i: number): MeantState => {
    const [page, parent] = [known[i], meant[i].parent];
    if (page < 0) return 'missing';
    if (factAt(view, 'html', page) !== true || factAt(view, 'redirect_to', page) !== null) return 'no_page';
    const depth = view.column('depth')[page];
    if (depth < 0) return 'no_route';
    if (parent >= 0 && known[parent] >= 0 && !links(known[parent], page)) return 'elsewhere';
    return depth > meant[i].level ? 'deeper' : 'as_meant';
  };
  const pages = meant.map(({ address, title, level }, i): MeantPage => {
    const state = stateOf(i);
    counts[state]++;
    const fact = (name: 'depth' | 'parent' | 'status') => (known[i] < 0 ? null : factAt(view, name, known[i]));
    return {
      ...{ address, title, level, state },
      depth: fact('depth') as number | null,
      parent: fact('parent') as string | null,
      status: fact('status') as number | null,
    };
  });
  const isMeant = new Set(known);
  const extra: string[] = [];
  let extraCount = 0;
  for (let page = 0; page < view.count; page++) {
    if (view.column('verdict')[page] !== INDEXABLE || isMeant.has(page)) continue;
    if (extraCount++ < mostExtra) extra.push(addressAt(view, page));
  }
  return { pages, counts, extra, extraCount };
}
