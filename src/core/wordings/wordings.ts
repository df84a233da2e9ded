/** The words of the links to each page: how often, from where, how well they fit, and what is wrong with them. */
import { anchorFaults, CLICK_KIND, faultBit, isContentPlacement } from '../links';
import type { LinkFault } from '../links';
import { followedTest } from '../linkFacts';
import { DAMPING } from '../share';
import type { View } from '../view';
import { wordFit } from './fit';

/** Links to one page with the same words and fragment. */
export interface Wording {
  target: number;
  fragment: string;
  anchor: string;
  occurrences: number;
  /** Different pages that have one. */
  pages: number;
  /** How many stand in main content, and how many search crawlers follow. */
  mainContent: number;
  followed: number;
  /** The share that they carry, each as a part of its source's. */
  share: number;
  /** See fit.ts. */
  fit: number;
  better: number;
  /** Faults that any of them has. */
  faults: LinkFault[];
}

/**
 * The wordings of pages, by target, the most frequent first. Links of a page to itself do not count.
 * @param targets all pages without
 */
export function wordingsOf(view: View, targets?: ReadonlySet<number>): Map<number, Wording[]> {
  const { count, links, phrases } = view;
  const { offsets, kind, target, anchor, fragment, placement } = links;
  const isFollowed = followedTest(view);
  const { faults } = links;
  const [share, linked] = [view.column('share'), view.column('pages_linked')];
  const found = new Map<number, Map<string, Wording & { bits: number; last: number }>>();
  for (let page = 0; page < count; page++) {
    const gives = (DAMPING * Math.max(0, share[page])) / Math.max(1, linked[page]);
    for (let link = offsets[page]; link < offsets[page + 1]; link++) {
      const to = target[link];
      if (kind[link] !== CLICK_KIND || to >= count || to === page || (targets && !targets.has(to))) continue;
      let own = found.get(to);
      if (!own) found.set(to, (own = new Map()));
      const key = `${anchor[link]} ${fragment[link]}`;
      let one = own.get(key);
      if (!one)
        own.set(
          key,
          (one = {
            ...{ target: to, fragment: phrases[fragment[link]], anchor: phrases[anchor[link]] },
            ...{ occurrences: 0, pages: 0, mainContent: 0, followed: 0, share: 0, fit: -1, better: -1 },
            ...{ faults: [], bits: 0, last: -1 },
          }),
        );
      one.occurrences++;
      if (one.last !== page) {
        one.pages++;
        one.share += gives;
      }
      one.last = page;
      if (isContentPlacement[placement[link]]) one.mainContent++;
      if (isFollowed(link)) one.followed++;
      one.bits |= faults[link];
    }
  }
  const fit = wordFit(view);
  return new Map(
    [...found].map(([page, own]) => [
      page,
      [...own.values()]
        .map(({ bits, last: _, ...one }): Wording => {
          const judged = one.fragment ? { fit: -1, better: -1 } : fit(one.anchor, page);
          return { ...one, ...judged, faults: anchorFaults.filter((fault) => bits & faultBit(fault)) };
        })
        .sort((a, b) => b.occurrences - a.occurrences || (a.anchor < b.anchor ? -1 : 1)),
    ]),
  );
}

/**
 * Whether a wording in content seems to lead to the wrong page: its words fit another one clearly better, or they are
 * off-topic.
 */
export const seemsWrong = ({ mainContent, better, faults }: Wording): boolean =>
  mainContent > 0 && (better >= 0 || faults.includes('off_topic'));

/** The share that comes to a page under words that are faulty. */
export const lostShare = (wordings: readonly Wording[]): number =>
  wordings.reduce((sum, { faults, share }) => sum + (faults.length ? share : 0), 0);
