/** The phrases that name a page: what its links, title, headings, address and place on the site call it. */
import { isInCapitals } from '../language';
import { IN_CODE, IS_APART, pageWords, wordsOfText } from '../textIndex';
import type { TextIndex } from '../textIndex';
import { blockKinds } from '../html';
import { addressAt, textAt } from '../snapshot';
import { addressParts } from '../url';
import type { View } from '../view';

/** Where a phrase is from; the first one that has it counts. */
export const phraseSources = ['anchor', 'title', 'h1', 'heading', 'code', 'breadcrumb', 'address', 'part'] as const;
export type PhraseSource = (typeof phraseSources)[number];

export interface Phrase {
  text: string;
  /** Of its words but the small ones. */
  stems: readonly number[];
  /** By stem, whether its word is all in capitals, which only a word in capitals matches. */
  inCapitals: readonly boolean[];
  /** By stem, whether its word is a number, which says nothing alone. */
  isNumber: readonly boolean[];
  /** Small words in it, in lower case. */
  small: ReadonlySet<string>;
  source: PhraseSource;
  /** How surely it means the page, from 0 to 1. */
  weight: number;
}

const WEIGHTS: Record<PhraseSource, number> = {
  anchor: 1,
  title: 0.95,
  h1: 0.95,
  heading: 0.6,
  code: 0.5,
  breadcrumb: 0.6,
  address: 0.5,
  part: 0.4,
};
/** Longer ones are sentences. */
const MOST_WORDS = 9;
const MOST_HEADINGS = 300;
const MOST_ANCHORS = 200;

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
    let isNumber: boolean[] = [];
    let small = new Set<string>();
    let [from, to] = [-1, -1];
    const end = () => {
      if (isNumber.includes(false) && stems.length <= MOST_WORDS && !stems.includes(-1))
        found.push({ text: text.slice(from, to), stems, inCapitals, isNumber, small, source, weight });
      [stems, inCapitals, isNumber, small, from] = [[], [], [], new Set(), -1];
    };
    for (const word of wordsOfText(text)) {
      if (word.isApart) end();
      if (index.isSmallWord(word.text, language)) {
        small.add(word.text.toLowerCase());
        continue;
      }
      if (from < 0) from = word.from;
      to = word.to;
      isNumber.push(!/\p{L}/u.test(word.text));
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
  /** A name without the words with which many titles end, as in “depot.h Source File”; null without such words. */
  withoutTail: (part: string) => string | null;
}

/** The last words of a text. */
const tailOf = (text: string, words: number) => new RegExp(`(?:\\s+\\S+){${words}}$`).exec(text)?.[0] ?? null;
const TAILS = [3, 2];

const COMMON = 0.02;
const MANY = 5;

export function siteNames(view: View): SiteNames {
  const counts = new Map<string, number>();
  let titles = 0;
  for (let page = 0; page < view.count; page++) {
    const title = textAt(view, 'title', page);
    if (!title) continue;
    titles++;
    const parts = titleParts(title);
    const tails = parts.flatMap((part) => TAILS.map((words) => tailOf(part, words) ?? ''));
    for (const part of new Set([...parts, ...tails])) counts.set(part, (counts.get(part) ?? 0) + 1);
  }
  const most = Math.max(MANY, COMMON * titles);
  const isCommonPart = (part: string) => (counts.get(part) ?? 0) > most;
  return {
    isCommonPart,
    withoutTail: (part) => {
      const tail = TAILS.map((words) => tailOf(part, words)).find((one) => one && isCommonPart(one));
      return tail ? part.slice(0, -tail.length) : null;
    },
  };
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
  const parts = titleParts(textAt(view, 'title', page) ?? '')
    .filter((part) => !site.isCommonPart(part))
    .flatMap((part) => [site.withoutTail(part) ?? part]);
  // Several main headings are headings like others.
  const h1s = (textAt(view, 'h1', page) ?? '').split(' / ').filter((h1) => !site.isCommonPart(h1));
  return [
    ...parts.flatMap((part, i) => read(part.replace(numbering, ''), 'title', WEIGHTS.title - 0.15 * Math.min(i, 3))),
    ...h1s.flatMap((h1, i) => read(h1.replace(numbering, ''), i ? 'heading' : 'h1', i ? WEIGHTS.heading : WEIGHTS.h1)),
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
    for (let i = from; i < to && (i === from || !(words.flags[i] & IS_APART)); i++)
      first.push(index.formText(words.form[i]));
    const isCode = (words.flags[from] & IN_CODE) !== 0;
    found.push(...read(first.join(' ').replace(numbering, ''), 'heading', WEIGHTS.heading + (isCode ? 0.1 : 0)));
  }
  return found;
}

/** Names of code have an underscore, or a capital within. */
export const codeName = /^\p{L}+\d*(?:_[\p{L}\d]+)+$|^\p{Ll}[\p{Ll}\d]*\p{Lu}/u;
/** A page that is about a name has it among its first words. */
const FIRST_WORDS = 400;

/** The forms of names in code that a page begins with: what it describes, if anything. */
export function codeForms(index: TextIndex, page: number, words = pageWords()): Set<number> {
  const forms = new Set<number>();
  if (!index.read(page, words)) return forms;
  for (let i = 0; i < Math.min(words.words, FIRST_WORDS); i++)
    if (words.flags[i] & IN_CODE && codeName.test(index.formText(words.form[i]))) forms.add(words.form[i]);
  return forms;
}

/** Names of code that a page begins with, as far as few others do so. */
function codeNames(index: TextIndex, { page, language, pagesOfCode }: PhraseCall): Phrase[] {
  const read = phraseReader(index, language);
  // What it is about comes first; others are what it takes and gives.
  return [...codeForms(index, page)].flatMap((form, i) =>
    read(index.formText(form), 'code', WEIGHTS.code / Math.sqrt(pagesOfCode(form)) / (1 + 0.03 * Math.min(i, 20))),
  );
}

/** A single word of a name is as rare as this to name it. */
const RARE = 0.4;
/** And names it so much less surely than several. */
const LONE = 0.6;

/** Parts of a longer name, which may name it too. */
function partsOf(
  { text, stems, inCapitals, isNumber, small, weight }: Phrase,
  rarity: (stem: number) => number,
): Phrase[] {
  const found: Phrase[] = [];
  const whole = stems.reduce((sum, stem) => sum + rarity(stem), 0);
  for (let length = stems.length - 1; length >= 1; length--)
    for (let from = 0; from + length <= stems.length; from++) {
      const some = stems.slice(from, from + length);
      if (length === 1 && rarity(some[0]) < RARE && !inCapitals[from]) continue;
      const numbers = isNumber.slice(from, from + length);
      if (!numbers.includes(false)) continue;
      const part = some.reduce((sum, stem) => sum + rarity(stem), 0) / whole;
      found.push({
        text,
        stems: some,
        inCapitals: inCapitals.slice(from, from + length),
        isNumber: numbers,
        small,
        source: 'part',
        weight: WEIGHTS.part * weight * (0.5 + part) * (length === 1 && !inCapitals[from] ? LONE : 1),
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
  /** How many pages begin with a name of code. */
  pagesOfCode: (form: number) => number;
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
    ...codeNames(index, call),
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
