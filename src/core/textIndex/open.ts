/** An index of texts that is open to be read. */
import { isSmallWord, stemOf } from '../language';
import { once } from '../snapshot';
import type { TextParts } from './build';
import { blockHash, numberReader, pageWords, unpackWords } from './tokens';
import type { PageWords } from './tokens';

export interface TextIndex {
  languages: readonly string[];
  pages: number;
  words: number;
  /** How many different words there are as they are written, each in one language. */
  forms: number;
  /** By form: its text, its stem, and whether it is a small word of its language. */
  formText: (form: number) => string;
  stemOfForm: Uint32Array;
  /** The number of a word as it is written, in a language; −1 when no page has it so. */
  formNumber: (word: string, language: number) => number;
  isSmall: Uint8Array;
  /** By stem, how many pages have it. */
  pagesOfStem: Uint32Array;
  /** The pages that have a stem; null where they are so many that no list of them is kept. */
  pagesWith: (stem: number) => Uint32Array | null;
  /** The number of a word's stem in a language; −1 when no page has it. */
  stemOf: (word: string, language: number) => number;
  isSmallWord: (word: string, language: number) => boolean;
  /** Whether a block, from one word to another, stands on so many pages that it is no content of one. */
  recurs: (form: ArrayLike<number>, from: number, to: number) => boolean;
  /** The number of a page's language; −1 when it has no text. */
  languageNumber: (page: number) => number;
  /** Reads the words of a page. @returns false when it has none */
  read: (page: number, into: PageWords) => boolean;
  /** The pages that it has, in their order. */
  pageNumbers: readonly number[];
  /** By page that has few links, how many good places for more there are; see {@link GOOD_PLACES_PART}. */
  goodPlaces: ReadonlyMap<number, number>;
  /** Of everything, roughly. */
  bytes: number;
}

const text = new TextDecoder();
/** Copied: what the database gives may begin at any byte of a larger buffer. */
const numbers = (bytes: Uint8Array) => new Uint32Array(new Uint8Array(bytes).buffer);

/** Where the words of a page stand. */
interface Stored {
  bytes: Uint8Array;
  from: number;
  to: number;
  language: number;
}

/** Pages and their numbers of good places, one after the other; added once the index itself is there. */
export const GOOD_PLACES_PART = 'good_places';
export const goodPlacesPart = (counts: ReadonlyMap<number, number>) =>
  new Uint8Array(Uint32Array.from([...counts].flat()).buffer);

function* pairsOf(values: Uint32Array): Generator<[number, number]> {
  for (let i = 0; i + 1 < values.length; i += 2) yield [values[i], values[i + 1]];
}

/** A stem on more of all pages than this tells too little for a list of them. */
const MOST_LISTED = 0.1;

/** Lists the pages of each stem, in one pass over all texts when it is first asked for. */
function stemPages(
  index: Pick<TextIndex, 'pages' | 'pageNumbers' | 'stemOfForm' | 'pagesOfStem' | 'read'>,
): TextIndex['pagesWith'] {
  const { pages, pageNumbers, stemOfForm, pagesOfStem, read } = index;
  const isListed = (stem: number) => pagesOfStem[stem] <= MOST_LISTED * pages;
  const listed = once(() => {
    const offsets = new Uint32Array(pagesOfStem.length + 1);
    for (let stem = 0; stem < pagesOfStem.length; stem++)
      offsets[stem + 1] = offsets[stem] + (isListed(stem) ? pagesOfStem[stem] : 0);
    const ends = offsets.slice();
    const list = new Uint32Array(offsets[pagesOfStem.length]);
    const words = pageWords();
    for (const page of pageNumbers) {
      read(page, words);
      for (let i = 0; i < words.words; i++) {
        const stem = stemOfForm[words.form[i]];
        const isNew = ends[stem] === offsets[stem] || list[ends[stem] - 1] !== page;
        if (isListed(stem) && isNew) list[ends[stem]++] = page;
      }
    }
    return { offsets, list };
  });
  return (stem) => {
    if (!isListed(stem)) return null;
    const { offsets, list } = listed();
    return list.subarray(offsets[stem], offsets[stem + 1]);
  };
}

/** Opens the parts of an index. */
export function openTextIndex(parts: TextParts): TextIndex {
  const part = (name: string) => parts.get(name)!;
  const head = JSON.parse(text.decode(part('head'))) as { languages: string[]; pages: number; words: number };
  const forms = text.decode(part('forms')).split('\n');
  const numberOfForm = new Map(forms.map((form, i) => [form, i]));
  const stems = new Map(
    text
      .decode(part('stems'))
      .split('\n')
      .map((stem, i) => [stem, i]),
  );
  const recurring = new Set(numbers(part('recurring')));
  const stored = new Map<number, Stored>();
  for (const [name, bytes] of parts) {
    if (!name.startsWith('pages/')) continue;
    for (const reader = numberReader(bytes); reader.at < bytes.length;) {
      const [page, language, length] = [reader.number(), reader.number(), reader.number()];
      stored.set(page, { bytes, from: reader.at, to: reader.at + length, language });
      reader.skip(length);
    }
  }
  const { languages } = head;
  const stemOfForm = numbers(part('stem_of_form'));
  const pagesOfStem = numbers(part('pages_of_stem'));
  const read = (page: number, into: PageWords) => {
    const found = stored.get(page);
    if (!found) return false;
    into.page = page;
    into.language = found.language;
    unpackWords(found.bytes, found.from, found.to, into);
    return true;
  };
  const pageNumbers = [...stored.keys()];
  return {
    ...head,
    forms: forms.length,
    formText: (form) => forms[form].slice(forms[form].indexOf(' ') + 1),
    stemOfForm,
    formNumber: (word, language) => numberOfForm.get(`${language} ${word}`) ?? -1,
    isSmall: part('is_small'),
    pagesOfStem,
    pagesWith: stemPages({ pages: head.pages, pageNumbers, stemOfForm, pagesOfStem, read }),
    stemOf: (word, language) => {
      const form = numberOfForm.get(`${language} ${word}`);
      // A word that no page has so is taken apart, which takes a thousand times as long.
      return form === undefined
        ? (stems.get(`${language} ${stemOf(word, languages[language])}`) ?? -1)
        : stemOfForm[form];
    },
    isSmallWord: (word, language) => isSmallWord(word, languages[language]),
    recurs: (form, from, to) => recurring.has(blockHash(form, from, to)),
    languageNumber: (page) => stored.get(page)?.language ?? -1,
    read,
    pageNumbers,
    goodPlaces: new Map(pairsOf(numbers(parts.get(GOOD_PLACES_PART) ?? new Uint8Array(0)))),
    bytes: [...parts.values()].reduce((sum, { length }) => sum + length, 0) + 160 * forms.length,
  };
}
