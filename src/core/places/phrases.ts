/** The phrases that name a page: what its links, title, headings, address and place on the site call it. */
import { IN_CODE, pageWords, wordsOfText } from '../textIndex';
import type { TextIndex } from '../textIndex';
import { blockKinds } from '../html';
import { addressAt, textAt } from '../snapshot';
import { addressParts } from '../url';
import type { View } from '../view';

/** Where a phrase is from; the first one that has it counts. */
export const phraseSources = ['anchor', 'title', 'h1', 'heading', 'breadcrumb', 'address', 'part'] as const;
export type PhraseSource = (typeof phraseSources)[number];

export interface Phrase {
  text: string;
  /** Of its words but the small ones. */
  stems: readonly number[];
  /** By stem, whether its word is all in capitals, which only a word in capitals matches. */
  inCapitals: readonly boolean[];
  source: PhraseSource;
  /** How surely it means the page, from 0 to 1. */
  weight: number;
}

const WEIGHTS: Record<PhraseSource, number> = {
  anchor: 1,
  title: 0.95,
  h1: 0.95,
  heading: 0.6,
  breadcrumb: 0.6,
  address: 0.5,
  part: 0.4,
};
/** Longer ones are sentences. */
const MOST_WORDS = 9;
const MOST_HEADINGS = 300;
const MOST_ANCHORS = 200;

const capitals = /^\p{Lu}[\p{Lu}\p{N}]+$/u;
export const isInCapitals = (word: string) => capitals.test(word);

/** The pieces of a title: of the page, of its section, of the site. */
export const titleParts = (title: string): string[] =>
  title
    .split(/\s+[-–—|·•»›:/]+\s+|:\s+|\s[»›]\s?/u)
    .map((part) => part.trim())
    .filter((part) => part !== '');

/** A number before a heading: 4.2, B.6., Chapter 3. */
const numbering =
  /^(?:(?:chapter|section|part|appendix|step|kapitel|abschnitt|teil|chapitre|partie)\s+)?(?:\d+|[A-Z](?=\.))(?:\.\d+)*[.):]*\s+/iu;

/** Makes phrases of texts, in the language of a page. */
function phraseReader(index: TextIndex, language: number) {
  return (text: string, source: PhraseSource, weight: number): Phrase[] => {
    const found: Phrase[] = [];
    let stems: number[] = [];
    let inCapitals: boolean[] = [];
    let [from, to] = [-1, -1];
    const end = () => {
      if (stems.length > 0 && stems.length <= MOST_WORDS && !stems.includes(-1))
        found.push({ text: text.slice(from, to), stems, inCapitals, source, weight });
      [stems, inCapitals, from] = [[], [], -1];
    };
    for (const word of wordsOfText(text)) {
      if (word.isApart) end();
      if (index.isSmallWord(word.text, language)) continue;
      if (from < 0) from = word.from;
      to = word.to;
      stems.push(index.stemOf(word.text, language));
      inCapitals.push(isInCapitals(word.text));
    }
    end();
    return found;
  };
}

/** The words of links that lead to pages, each with how often. */
export type AnchorCounts = ReadonlyMap<number, ReadonlyMap<string, number>>;

/** What is known of a whole site, by which the names of one of its pages are read. */
export interface SiteNames {
  /** Pieces of titles that many pages have: the name of the site, or of a section. */
  isCommonPart: (part: string) => boolean;
}

const COMMON = 0.02;
const MANY = 5;

export function siteNames(view: View): SiteNames {
  const counts = new Map<string, number>();
  let titles = 0;
  for (let page = 0; page < view.count; page++) {
    const title = textAt(view, 'title', page);
    if (!title) continue;
    titles++;
    for (const part of new Set(titleParts(title))) counts.set(part, (counts.get(part) ?? 0) + 1);
  }
  const most = Math.max(MANY, COMMON * titles);
  return { isCommonPart: (part) => (counts.get(part) ?? 0) > most };
}

/** The words of the last piece of an address: `/stories/lantern-lane_roof.html` → lantern lane roof. */
function addressWords(address: string): string {
  const pieces = addressParts(address).path.split('/').filter(Boolean);
  const last = (pieces[pieces.length - 1] ?? '').replace(/\.\w{1,5}$/, '');
  const name = /^(?:index|default)?$/i.test(last) ? (pieces[pieces.length - 2] ?? '') : last;
  try {
    return decodeURIComponent(name).replace(/[-_+.]+/g, ' ');
  } catch {
    return name.replace(/[-_+.]+/g, ' ');
  }
}

/** The names of a page by which others may be told from it: of its title and main heading. */
export function ownNames(view: View, index: TextIndex, site: SiteNames, page: number, language: number): Phrase[] {
  const read = phraseReader(index, language);
  const parts = titleParts(textAt(view, 'title', page) ?? '').filter((part) => !site.isCommonPart(part));
  const h1 = textAt(view, 'h1', page) ?? '';
  return [
    ...parts.flatMap((part, i) => read(part.replace(numbering, ''), 'title', WEIGHTS.title - 0.15 * Math.min(i, 3))),
    ...(site.isCommonPart(h1) ? [] : read(h1.replace(numbering, ''), 'h1', WEIGHTS.h1)),
  ];
}

/** The headings within a page, as far as its text is kept. */
function headingPhrases(index: TextIndex, page: number): Phrase[] {
  const words = pageWords();
  if (!index.read(page, words)) return [];
  const read = phraseReader(index, words.language);
  const found: Phrase[] = [];
  for (let block = 0; block < words.blocks && found.length < MOST_HEADINGS; block++) {
    if (blockKinds[words.kind[block]] !== 'heading') continue;
    const [from, to] = [words.first[block], words.first[block + 1]];
    if (index.recurs(words.form, from, to)) continue;
    // Its first piece: what follows a bracket or comma are parameters and remarks.
    const first: string[] = [];
    for (let i = from; i < to && (i === from || !(words.flags[i] & 4)); i++) first.push(index.formText(words.form[i]));
    const isCode = (words.flags[from] & IN_CODE) !== 0;
    found.push(...read(first.join(' ').replace(numbering, ''), 'heading', WEIGHTS.heading + (isCode ? 0.1 : 0)));
  }
  return found;
}

/** Parts of a longer name, of two words or more each, which may name it too. */
function partsOf({ text, stems, inCapitals, weight }: Phrase, rarity: (stem: number) => number): Phrase[] {
  const found: Phrase[] = [];
  if (stems.length < 3) return found;
  const whole = stems.reduce((sum, stem) => sum + rarity(stem), 0);
  for (let length = stems.length - 1; length >= 2; length--)
    for (let from = 0; from + length <= stems.length; from++) {
      const some = stems.slice(from, from + length);
      const part = some.reduce((sum, stem) => sum + rarity(stem), 0) / whole;
      found.push({
        text,
        stems: some,
        inCapitals: inCapitals.slice(from, from + length),
        source: 'part',
        weight: WEIGHTS.part * weight * (0.5 + part),
      });
    }
  return found;
}

export interface PhraseCall {
  page: number;
  language: number;
  /** The words of links that lead to it. */
  anchors: ReadonlyMap<string, number> | undefined;
  /** Words of links that lead nowhere in particular. */
  isGeneric: (anchor: string) => boolean;
  /** How rare a word is on the site, from 0 to 1. */
  rarity: (stem: number) => number;
}

/** All phrases that name a page, each once, the surest first. */
export function keyPhrases(view: View, index: TextIndex, site: SiteNames, call: PhraseCall): Phrase[] {
  const { page, language, anchors, isGeneric, rarity } = call;
  const read = phraseReader(index, language);
  const names = ownNames(view, index, site, page, language);
  const said = [...(anchors ?? [])]
    .filter(([anchor]) => !isGeneric(anchor))
    .sort(([, a], [, b]) => b - a)
    .slice(0, MOST_ANCHORS);
  const crumb = (textAt(view, 'breadcrumb', page) ?? '').split(' › ').pop() ?? '';
  const all = [
    ...said.flatMap(([anchor]) => read(anchor.replace(numbering, ''), 'anchor', WEIGHTS.anchor)),
    ...names,
    ...headingPhrases(index, page),
    ...read(crumb, 'breadcrumb', WEIGHTS.breadcrumb),
    ...read(addressWords(addressAt(view, page)), 'address', WEIGHTS.address),
    ...names.flatMap((name) => partsOf(name, rarity)),
  ];
  const best = new Map<string, Phrase>();
  for (const phrase of all) {
    const key = phrase.stems.join();
    const known = best.get(key);
    if (!known || known.weight < phrase.weight) best.set(key, phrase);
  }
  return [...best.values()].sort((a, b) => b.weight - a.weight);
}
