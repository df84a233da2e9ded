/**
 * The words of a text as they are looked for: apart at hyphens and apostrophes, names of code whole, syllable by
 * syllable where endings hang on without a space, each with whether it goes on after the one before it.
 */
import { caseless, eachWord } from '../words';

export interface TextWord {
  /** As it is written. */
  text: string;
  /** Where it stands, in UTF-16 units. */
  from: number;
  to: number;
  /** Whether something stands before it over which no phrase goes: a comma, a bracket, the end of a sentence. */
  isApart: boolean;
}

const hangul = /\p{Script=Hangul}/u;
/** What may stand between the words of one phrase. */
const joins = /^[\s\u00ad'’‘"“”„«»-]*(?:&\s*)?$/;
/** What makes one name of code of several words: sqlite3_open. */
const isUnderscore = /^_+$/;
/** Within a name, as in B.6, fs.open and and/or: no space on either side. */
const within = /^(?:[./:@+]|::|->)$/;
/** After an abbreviation before a number or name: No. 19, Dr. Hall. */
const abbreviated = (before: string, gap: string, after: string) =>
  gap === '. ' && before.length <= 3 && /^\p{Lu}/u.test(before) && /^[\p{Lu}\p{N}]/u.test(after);

/** In an index, longer words are cut, and longer numbers count as one and the same: they are data. */
export const MAX_FORM = 40;
export const MAX_DIGITS = 4;

/** The words of a text in their order. */
export function wordsOfText(text: string): TextWord[] {
  const words: TextWord[] = [];
  const add = (from: number, to: number) => {
    const word = text.slice(from, to);
    const last = words[words.length - 1];
    const gap = last ? text.slice(last.to, from) : '';
    if (isUnderscore.test(gap)) {
      last.to = to;
      last.text = text.slice(last.from, to);
      return;
    }
    const isApart = !!last && !joins.test(gap) && !within.test(gap) && !abbreviated(last.text, gap, word);
    words.push({ text: word, from, to, isApart });
  };
  eachWord(text, (from, to, kind) => {
    if (kind === 'sign') return add(from, to);
    let at = from;
    for (const part of text.slice(from, to).split(/(['’-])/)) {
      if (part !== '' && hangul.test(part)) {
        let place = at;
        for (const syllable of part) {
          add(place, place + syllable.length);
          place += syllable.length;
        }
      } else if (part !== '' && !/^['’-]$/.test(part)) add(at, at + part.length);
      at += part.length;
    }
  });
  return words;
}

/** Why words cannot be looked for: there are none, or one of them is kept without its end. */
export type SearchFault = 'no_words' | 'long_number';

/** The words of a phrase as they are looked for; a fault instead where they cannot be. */
export function searchedWords(phrase: string): string[] | SearchFault {
  const words = wordsOfText(phrase).map(({ text }) => caseless(text));
  if (words.length === 0) return 'no_words';
  return words.some((word) => /^\d+$/.test(word) && word.length > MAX_DIGITS) ? 'long_number' : words;
}
