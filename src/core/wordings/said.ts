/** Wordings from other sides: which pages some words lead to, what one page says, and one section of another. */
import { anchorFaults, CLICK_KIND, faultBit, isContentPlacement } from '../links';
import { followedTest } from '../linkFacts';
import { DAMPING } from '../share';
import { isText } from '../snapshot';
import type { View } from '../view';
import { caseless } from '../words';
import type { Wording } from './wordings';

/** Words that lead to pages. */
export interface SharedWords {
  /** As they are written most often. */
  anchor: string;
  /** The wordings that they are, case apart, the most frequent first. */
  wordings: Wording[];
  occurrences: number;
  targets: number;
}

/** All words of links, those first that lead to the most pages. */
export function sharedWords(wordings: ReadonlyMap<number, readonly Wording[]>): SharedWords[] {
  const found = new Map<string, Wording[]>();
  for (const one of [...wordings.values()].flat()) {
    const key = caseless(one.anchor);
    const known = found.get(key);
    if (known) known.push(one);
    else found.set(key, [one]);
  }
  return [...found.values()]
    .map((all) => {
      const sorted = all.sort((a, b) => b.occurrences - a.occurrences || a.target - b.target);
      return {
        anchor: sorted[0].anchor,
        wordings: sorted,
        occurrences: all.reduce((sum, { occurrences }) => sum + occurrences, 0),
        targets: new Set(all.map(({ target }) => target)).size,
      };
    })
    .sort((a, b) => b.targets - a.targets || b.occurrences - a.occurrences || (a.anchor < b.anchor ? -1 : 1));
}

/** The wordings of one page's links, in the order in which they first stand there. */
export function saidOn(view: View, wordings: ReadonlyMap<number, readonly Wording[]>, page: number): Wording[] {
  const { count, links, phrases } = view;
  const { offsets, kind, target, anchor, fragment, placement, faults } = links;
  const isFollowed = followedTest(view);
  const linked = view.column('pages_linked')[page];
  const share = (DAMPING * Math.max(0, view.column('share')[page])) / Math.max(1, linked);
  const found = new Map<string, Wording & { bits: number }>();
  for (let link = offsets[page]; link < offsets[page + 1]; link++) {
    const to = target[link];
    if (kind[link] !== CLICK_KIND || to >= count || to === page) continue;
    const key = `${to} ${anchor[link]} ${fragment[link]}`;
    let one = found.get(key);
    if (!one) {
      const [words, part] = [phrases[anchor[link]], phrases[fragment[link]]];
      const ofSite = wordings.get(to)?.find((own) => own.anchor === words && own.fragment === part);
      const { fit, better } = ofSite ?? { fit: -1, better: -1 };
      one = {
        ...{ target: to, fragment: part, anchor: words, occurrences: 0, pages: 1, mainContent: 0, followed: 0 },
        ...{ share, fit, better, faults: [], bits: 0 },
      };
      found.set(key, one);
    }
    one.occurrences++;
    one.bits |= faults[link];
    if (isContentPlacement[placement[link]]) one.mainContent++;
    if (isFollowed(link)) one.followed++;
  }
  return [...found.values()].map(({ bits, ...one }) => ({
    ...one,
    faults: anchorFaults.filter((fault) => bits & faultBit(fault)),
  }));
}

/** What the pages of one section say to those of another. */
export interface SectionWords {
  from: string;
  to: string;
  /** Links in main content. */
  links: number;
  /** The words most of them have, with how many. */
  words: [anchor: string, links: number][];
}

/**
 * What each section says to each other, and to itself, in main content: the most links first.
 * @param most words of each pair of sections
 */
export function sectionWords(view: View, most: number): SectionWords[] {
  const sections = view.column('section');
  if (!isText(sections)) return [];
  const { count, links, phrases } = view;
  const { offsets, kind, target, anchor, placement } = links;
  const found = new Map<string, { from: number; to: number; links: number; words: Map<number, number> }>();
  for (let page = 0; page < count; page++)
    for (let link = offsets[page]; link < offsets[page + 1]; link++) {
      const to = target[link];
      if (kind[link] !== CLICK_KIND || to >= count || to === page || !isContentPlacement[placement[link]]) continue;
      const key = `${sections.codes[page]} ${sections.codes[to]}`;
      let pair = found.get(key);
      if (!pair)
        found.set(key, (pair = { from: sections.codes[page], to: sections.codes[to], links: 0, words: new Map() }));
      pair.links++;
      pair.words.set(anchor[link], (pair.words.get(anchor[link]) ?? 0) + 1);
    }
  return [...found.values()]
    .sort((a, b) => b.links - a.links)
    .map(({ from, to, words, ...pair }) => ({
      ...pair,
      from: sections.values[from],
      to: sections.values[to],
      words: [...words]
        .sort(([, a], [, b]) => b - a)
        .slice(0, most)
        .map(([code, many]): [string, number] => [phrases[code], many]),
    }));
}
