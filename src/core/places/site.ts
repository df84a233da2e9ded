/** What is known of a whole site before places on it are looked for. */
import { INDEXABLE } from '../facts';
import { CLICK_KIND, isContentPlacement } from '../links';
import { genericIn, isReference, isWayfinding, plainWords } from '../anchors';
import { pageWords } from '../textIndex';
import type { TextIndex } from '../textIndex';
import type { View } from '../view';
import { codeForms, ownNames, siteNames } from './phrases';
import type { SiteNames } from './phrases';
import { phraseTrie } from './trie';
import type { Trie } from './trie';

/** By page the words of the links that lead to it, each with how often. */
type AnchorCounts = ReadonlyMap<number, ReadonlyMap<string, number>>;

export interface Site {
  view: View;
  index: TextIndex;
  names: SiteNames;
  anchors: AnchorCounts;
  isGeneric: (anchor: string) => boolean;
  /** How many pages begin with a name of code, by its form. */
  pagesOfCode: (form: number) => number;
  /** How rare a word is: 0 on every page, 1 on one. */
  rarity: (stem: number) => number;
  /** The names of all pages that may be indexed, and by the end of each the pages that are called so. */
  trie: Trie;
  pagesOfName: readonly (readonly number[])[];
  /** The pages that may be indexed and have a name of only such words. */
  pagesNamedBy: (stems: ReadonlySet<number>) => number[];
  /** The language of a page's text, by its number in the index; that of most pages where it has none. */
  languageOf: (page: number) => number;
  /** Pages that may get a link. */
  isSource: Uint8Array;
}

/** The words that lead to each page. */
function countAnchors({ count, links, phrases }: View): AnchorCounts {
  const { offsets, kind, target, anchor } = links;
  const counts = new Map<number, Map<string, number>>();
  for (let page = 0; page < count; page++)
    for (let link = offsets[page]; link < offsets[page + 1]; link++) {
      const to = target[link];
      if (kind[link] !== CLICK_KIND || to >= count || to === page || anchor[link] === 0) continue;
      let said = counts.get(to);
      if (!said) counts.set(to, (said = new Map()));
      const words = phrases[anchor[link]];
      said.set(words, (said.get(words) ?? 0) + 1);
    }
  return counts;
}

/** Reads what places are looked for with; done once for a view and its index. */
export function readSite(view: View, index: TextIndex): Site {
  const names = siteNames(view);
  const trie = phraseTrie(index);
  const pagesOfName: number[][] = [];
  const verdict = view.column('verdict');
  const languages = new Int16Array(view.count).fill(-1);
  for (const page of index.pageNumbers) languages[page] = index.languageNumber(page);
  const isSource = Uint8Array.from(verdict, (code, page) => Number(code === INDEXABLE && languages[page] >= 0));
  const stemsOfName: (readonly number[])[] = [];
  for (let page = 0; page < view.count; page++) {
    if (isSource[page] !== 1) continue;
    const ends = new Set<number>();
    for (const { stems, source } of ownNames(view, index, names, page, languages[page])) {
      if (source === 'heading') continue;
      const end = trie.add(stems);
      stemsOfName[end] = stems;
      ends.add(end);
    }
    for (const end of ends) (pagesOfName[end] ??= []).push(page);
  }
  const words = pageWords();
  const pagesOfCode = new Map<number, number>();
  for (const page of index.pageNumbers)
    for (const form of codeForms(index, page, words)) pagesOfCode.set(form, (pagesOfCode.get(form) ?? 0) + 1);
  const pagesIn = index.languages.map((_, language) => languages.filter((one) => one === language).length);
  const usual = pagesIn.indexOf(Math.max(...pagesIn));
  const scale = Math.log(1 + index.pages);
  return {
    view,
    index,
    names,
    anchors: countAnchors(view),
    isGeneric: (anchor) => {
      const words = plainWords(anchor);
      return words === '' || genericIn(words) !== 0 || isWayfinding(words) || isReference(words);
    },
    pagesOfCode: (form) => pagesOfCode.get(form) ?? 1,
    rarity: (stem) => (stem < 0 ? 1 : 1 - Math.log(1 + index.pagesOfStem[stem]) / scale),
    trie,
    pagesOfName,
    pagesNamedBy: (has) => [
      ...new Set(stemsOfName.flatMap((stems, end) => (stems.every((stem) => has.has(stem)) ? pagesOfName[end] : []))),
    ],
    languageOf: (page) => (languages[page] >= 0 ? languages[page] : usual),
    isSource,
  };
}

/** The pages that link to another from their main content. */
export function contentSources({ count, links }: View, targets: ReadonlySet<number>): Map<number, Set<number>> {
  const { offsets, kind, target, placement } = links;
  const sources = new Map([...targets].map((page) => [page, new Set<number>()]));
  for (let page = 0; page < count; page++)
    for (let link = offsets[page]; link < offsets[page + 1]; link++)
      if (kind[link] === CLICK_KIND && isContentPlacement[placement[link]]) sources.get(target[link])?.add(page);
  return sources;
}
