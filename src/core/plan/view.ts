/** Plans for a view, as edits of a draft. */
import { editOf } from '../draft';
import type { Edit } from '../draft';
import { INDEXABLE } from '../facts';
import { walkOf } from '../reach';
import { hasBit } from '../selection';
import type { Bits } from '../selection';
import { addressAt, factAt } from '../snapshot';
import { addressParts } from '../url';
import type { View } from '../view';
import { planLinks } from './plan';
import type { Plan, PlannedLink } from './plan';

export interface PlanCall {
  /** Clicks from the start; any number without it, so that pages need a route and no more. */
  within?: number;
  /** The pages that are to come within so many clicks. */
  wanted: Bits;
  newLinks?: number;
  budget?: number;
  /** Whether pages may link only to pages of their own section. */
  withinSections?: boolean;
}

/** How many folders the addresses of two pages have in common; pages of two hosts have none. */
function commonFolders(view: View): (source: number, target: number) => number {
  const folders: (string[] | undefined)[] = [];
  const foldersOf = (page: number) =>
    (folders[page] ??= (({ host, path }) => [host, ...path.split('/').slice(1, -1)])(
      addressParts(addressAt(view, page)),
    ));
  return (source, target) => {
    const [a, b] = [foldersOf(source), foldersOf(target)];
    let common = 0;
    while (common < a.length && a[common] === b[common]) common++;
    return common;
  };
}

/** Plans new links between pages that may be indexed, for a visitor. */
export function planFor(
  view: View,
  { within = view.count, wanted, newLinks = Infinity, budget = Infinity, withinSections = false }: PlanCall,
): Plan {
  const { graph, pages, depths } = walkOf(view);
  const verdict = view.column('verdict');
  const indexable = Uint8Array.from(verdict, (code) => Number(code === INDEXABLE));
  const isWanted = indexable.map((_, page) => Number(hasBit(wanted, page)));
  return planLinks(
    { graph, pages, depth: depths.depth, likeness: commonFolders(view) },
    { within, wanted: isWanted },
    {
      sources: indexable,
      targets: indexable.map((one, page) => one | isWanted[page]),
      newLinks,
      budget,
      groups: withinSections ? view.column('section').codes : null,
    },
  );
}

/** The words that name a page: its heading or its title, whichever is shorter. */
const nameOf = (view: View, page: number): string =>
  [factAt(view, 'h1', page), factAt(view, 'title', page)]
    .filter((text) => typeof text === 'string' && text !== '')
    .map(String)
    .sort((a, b) => a.length - b.length)[0] ?? '';

/** A planned link as an edit, with the words that name its target. */
export const editOfLink = (view: View, { source, target }: PlannedLink): Edit =>
  editOf('add_link', addressAt(view, source), {
    target: addressAt(view, target),
    anchor: nameOf(view, target),
    placement: 'main',
  });
