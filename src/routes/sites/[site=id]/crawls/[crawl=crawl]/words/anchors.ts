/** What the screen shows of the words of links: by target, by words, by page, by section, and those to move. */
import { INDEXABLE } from '$core/facts';
import { addressAt, pageOf } from '$core/snapshot';
import type { View } from '$core/view';
import { lostShare, saidOn, sectionWords, seemsWrong, seenSince, sharedWords, wordingKey } from '$core/wordings';
import type { FirstSeen, Wording } from '$core/wordings';
import { caseless } from '$core/words';
import { listed, named } from './listed';
import type { Asked } from './listed';

/** Wordings of one page, or pages of one wording, that are shown. */
const MOST_WORDINGS = 300;
/** Words of each pair of sections. */
const MOST_WORDS = 12;

type Wordings = ReadonlyMap<number, readonly Wording[]>;

/** Wordings that are looked at more closely, under the page or words that they are of. */
function closer(
  view: View,
  seen: FirstSeen | null,
  of: { address: string | null; title: string | null },
  own: readonly Wording[],
) {
  return {
    ...of,
    total: own.length,
    wordings: own.slice(0, MOST_WORDINGS).map(({ target, better, ...one }) => ({
      ...one,
      target: named(view, target),
      better: better < 0 ? null : named(view, better),
      since: seen && seenSince(seen, wordingKey(addressAt(view, target), one.anchor, one.fragment)),
    })),
  };
}

interface Target {
  page: number;
  own: readonly Wording[];
  figure: number;
}

const faultyLinks = (own: readonly Wording[]) =>
  own.reduce((sum, { faults, occurrences }) => sum + (faults.length ? occurrences : 0), 0);

/** Targets, of which one is looked at more closely. */
function targetsOf(view: View, targets: readonly Target[], { item, find }: Asked, seen: FirstSeen | null) {
  const page = item ? pageOf(view, item) : -1;
  const shown =
    page < 0 ? targets[0] : (targets.find((one) => one.page === page) ?? { page, own: [] as readonly Wording[] });
  return {
    ...listed(targets, find, ({ page, own, figure }) => ({
      ...named(view, page),
      figure,
      wordings: own.length,
      faulty: faultyLinks(own),
    })),
    shown: shown ? closer(view, seen, named(view, shown.page), shown.own) : null,
  };
}

/** All targets, those first that lose most share under faulty words. */
export const byTarget = (view: View, wordings: Wordings, asked: Asked, seen: FirstSeen | null) =>
  targetsOf(
    view,
    [...wordings]
      .map(([page, own]) => ({ page, own, figure: lostShare(own) }))
      .sort((a, b) => b.figure - a.figure || a.page - b.page),
    asked,
    seen,
  );

/** The targets with links that seem wrong and that nobody has kept as they are, the worst fit first. */
export function toMove(
  view: View,
  wordings: Wordings,
  kept: ReadonlyMap<string, ReadonlySet<string>>,
  asked: Asked,
  seen: FirstSeen | null,
) {
  const isKept = ({ target, anchor }: Wording) => kept.get(addressAt(view, target))?.has(anchor);
  const targets = [...wordings]
    .map(([page, all]) => {
      const own = all.filter((one) => seemsWrong(one) && !isKept(one)).sort((a, b) => a.fit - b.fit);
      return { page, own, figure: own[0]?.fit ?? 1 };
    })
    .filter(({ own }) => own.length > 0)
    .sort((a, b) => a.figure - b.figure || b.own.length - a.own.length || a.page - b.page);
  return targetsOf(view, targets, asked, seen);
}

/** All words, those first that lead to the most pages. */
export function byWords(view: View, wordings: Wordings, { item, find }: Asked, seen: FirstSeen | null) {
  const all = sharedWords(wordings);
  const shown = item ? all.find(({ anchor }) => caseless(anchor) === caseless(item)) : all[0];
  return {
    ...listed(all, find, ({ anchor, occurrences, targets }) => ({
      ...{ address: anchor, title: null },
      ...{ figure: targets, wordings: occurrences, faulty: 0 },
    })),
    shown: shown ? closer(view, seen, { address: null, title: shown.anchor }, shown.wordings) : null,
  };
}

/** All pages that link, those first that give the most share, with what they say to others. */
export function byPage(view: View, wordings: Wordings, { item, find }: Asked, seen: FirstSeen | null) {
  const [verdict, share, linked] = [view.column('verdict'), view.column('share'), view.column('pages_linked')];
  const pages: number[] = [];
  for (let page = 0; page < view.count; page++) if (verdict[page] === INDEXABLE && linked[page] > 0) pages.push(page);
  pages.sort((a, b) => share[b] - share[a] || a - b);
  const page = item ? pageOf(view, item) : (pages[0] ?? -1);
  return {
    ...listed(pages, find, (one) => ({ ...named(view, one), figure: share[one], wordings: linked[one], faulty: 0 })),
    shown: page < 0 ? null : closer(view, seen, named(view, page), saidOn(view, wordings, page)),
  };
}

/** What each section says to others. */
export const bySection = (view: View) => sectionWords(view, MOST_WORDS);
