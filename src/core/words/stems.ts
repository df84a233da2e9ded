/**
 * The beginnings of words, by which texts are compared: how many letters they have, and how many a word needs to have
 * one.
 */
const STEM = 5;
const MIN_WORD = 3;
const isAscii = (text: string) => /^[\0-\x7f]*$/.test(text);

/** One form for singular and plural, and for what is made of a word. */
const stemOf = (word: string) =>
  (word.length > MIN_WORD && word.endsWith('s') ? word.slice(0, -1) : word).slice(0, STEM);

/** The beginnings of the words of a text that have some meaning; what two texts share of them they have in common. */
export function stems(text: string): Set<string> {
  const found = new Set<string>();
  const words = text.toLowerCase().match(/[\p{L}\p{N}]{3,}|[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]/gu);
  for (const word of words ?? [])
    found.add(stemOf(isAscii(word) ? word : word.normalize('NFD').replace(/\p{M}/gu, '')));
  return found;
}

export function haveCommon(a: ReadonlySet<string>, b: ReadonlySet<string>): boolean {
  const [few, many] = a.size < b.size ? [a, b] : [b, a];
  for (const one of few) if (many.has(one)) return true;
  return false;
}
