/** Phrases: read from texts, and those by which pages are called. */
import { isInCapitals } from '../language';
import { IN_CODE, pageWords, wordsOfText } from '../textIndex';
import type { TextIndex } from '../textIndex';
import { textAt } from '../snapshot';
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

export const WEIGHTS: Record<PhraseSource, number> = {
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

/** The pieces of a title: of the page, of its section, of the site. */
export const titleParts = (title: string): string[] =>
  title
    .split(/\s+[-–—|·•»›:/]+\s+|:\s+|\s[»›]\s?/u)
    .map((part) => part.trim())
    .filter((part) => part !== '');

/** A number before a heading: 4.2, B.6., Chapter 3. */
export const numbering =
  /^(?:(?:chapter|section|part|appendix|step|kapitel|abschnitt|teil|chapitre|partie)\s+)?(?:\d+|[A-Z](?=\.))(?:\.\d+)*[.):]*\s+/iu;

/** Makes phrases of texts, in the language of a page. */
export function phraseReader(index: TextIndex, language: number) {
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
