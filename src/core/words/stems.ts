/**
 * The beginnings of words, by which texts are compared whatever their language: one form for singular and plural, and
 * for what is made of a word. Scripts that do not set words apart by spaces, or hang their endings on without one, are
 * compared by pairs of signs.
 */
import { smallWords } from '../language/smallWords';
import { eachWord } from './eachWord';

/** How many letters a beginning has. */
const STEM = 5;
const isAscii = (text: string) => /^[\0-\x7f]*$/.test(text);
const hangul = /\p{Script=Hangul}/u;

const plain = (word: string) => (isAscii(word) ? word : word.normalize('NFD').replace(/\p{M}/gu, ''));

/** One form for singular and plural, and for what is made of a word. */
const stemOf = (word: string) => (word.length > 3 && word.endsWith('s') ? word.slice(0, -1) : word).slice(0, STEM);

/** Hands over the pairs of signs that stand beside each other; a single one by itself. */
function addPairs(signs: readonly string[], add: (stem: string) => void): void {
  if (signs.length === 1) add(signs[0]);
  for (let i = 0; i + 1 < signs.length; i++) add(signs[i] + signs[i + 1]);
}

/**
 * Hands over the beginnings of the words of a text; one may come several times.
 * @param onSign receives each sign that is compared in pairs, by itself
 * @param without words that are left out
 */
function eachStem(
  text: string,
  add: (stem: string) => void,
  onSign: (sign: string) => void = () => {},
  without?: ReadonlySet<string>,
): void {
  const lower = text.toLowerCase();
  let signs: string[] = [];
  let end = -1;
  const endRun = () => {
    addPairs(signs, add);
    signs = [];
  };
  eachWord(lower, (from, to, kind) => {
    const word = lower.slice(from, to);
    if (kind === 'sign') {
      if (from !== end) endRun();
      signs.push(word);
      onSign(word);
      end = to;
      return;
    }
    if (!isAscii(word) && hangul.test(word)) {
      const syllables = [...word.normalize('NFC')];
      syllables.forEach(onSign);
      addPairs(syllables, add);
    } else for (const part of word.split(/['’-]/)) if (part && !without?.has(part)) add(stemOf(plain(part)));
  });
  endRun();
}

/**
 * The beginnings of the words of a text; what two texts share of them they have in common.
 * @param language of the text, where it is known: its small words are left out, unless there are no others
 */
export function stems(text: string, language = ''): Set<string> {
  const found = new Set<string>();
  const small = smallWords(language);
  const add = (stem: string) => void found.add(stem);
  eachStem(text, add, undefined, small);
  if (found.size === 0 && small.size > 0) eachStem(text, add);
  return found;
}

/** {@link stems} and single signs: all that a text can be asked for. */
export function allStems(text: string): Set<string> {
  const found = new Set<string>();
  const add = (stem: string) => void found.add(stem);
  eachStem(text, add, add);
  return found;
}

export function haveCommon(a: ReadonlySet<string>, b: ReadonlySet<string>): boolean {
  const [few, many] = a.size < b.size ? [a, b] : [b, a];
  for (const one of few) if (many.has(one)) return true;
  return false;
}
