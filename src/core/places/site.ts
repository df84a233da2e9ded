/** What is known of a whole site before places on it are looked for. */
import { INDEXABLE } from '../facts';
import { CLICK_KIND, isContentPlacement } from '../links';
import { genericIn, isReference, isWayfinding, plainWords } from '../anchors';
import { pageWords, usualLanguage } from '../textIndex';
import type { TextIndex } from '../textIndex';
import type { View } from '../view';
import { codeForms, ownNames, phraseReader, siteNames } from './phrases';
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
  /**
   * The pages that may be indexed and have a name of only such words, or are called so by a link; read in slices at
   * first.
   */
  pagesNamedBy: (stems: ReadonlySet<number>) => Generator<void, number[]>;
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

/** Words of links that are read before others may have the processor. */
const SLICE_ANCHORS = 2000;

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
  const usual = usualLanguage(index);
  const scale = Math.log(1 + index.pages);
  const anchors = countAnchors(view);
  const isGeneric = (anchor: string) => {
    const words = plainWords(anchor);
    return words === '' || genericIn(words) !== 0 || isWayfinding(words) || isReference(words);
  };
  /** What links call pages, by its words; read when it is first asked for. */
  let called: { stems: readonly number[]; page: number }[] | null = null;
  function* readCalled() {
    const found: NonNullable<typeof called> = [];
    let read = 0;
    for (const [page, said] of anchors) {
      if (isSource[page] !== 1) continue;
      const phrasesOf = phraseReader(index, languages[page]);
      for (const anchor of said.keys()) {
        if (isGeneric(anchor)) continue;
        for (const { stems } of phrasesOf(anchor, 'anchor', 1)) found.push({ stems, page });
        if (++read % SLICE_ANCHORS === 0) yield;
      }
    }
    return found;
  }
  function* pagesNamedBy(has: ReadonlySet<number>) {
    called ??= yield* readCalled();
    const hasAll = (stems: readonly number[]) => stems.every((stem) => has.has(stem));
    const found = new Set(stemsOfName.flatMap((stems, end) => (hasAll(stems) ? pagesOfName[end] : [])));
    for (const { stems, page } of called) if (hasAll(stems)) found.add(page);
    return [...found];
  }
  return {
    view,
    index,
    names,
    anchors,
    isGeneric,
    pagesOfCode: (form) => pagesOfCode.get(form) ?? 1,
    rarity: (stem) => (stem < 0 ? 1 : 1 - Math.log(1 + index.pagesOfStem[stem]) / scale),
    trie,
    pagesOfName,
    pagesNamedBy,
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
