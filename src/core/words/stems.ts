/** The beginnings of words, by which texts are compared: how many letters they have, and how many a word needs to have one. */
export const STEM = 5;
export const MIN_WORD = 3;
const isAscii = (text: string) => /^[\0-\x7f]*$/.test(text);

/** One form for singular and plural, and for what is made of a word. */
const stemOf = (word: string) =>
  (word.length > MIN_WORD && word.endsWith('s') ? word.slice(0, -1) : word).slice(0, STEM);

/** The beginnings of the words of a text that have some meaning; what two texts share of them they have in common. */
export function stems(text: string): Set<string> {
  const lower = text.toLowerCase();
  return isAscii(lower) ? asciiStems(lower) : allStems(lower);
}

function allStems(lower: string): Set<string> {
  const found = new Set<string>();
  for (const [word] of lower.matchAll(/[\p{L}\p{N}]{3,}|[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]/gu))
    found.add(stemOf(word.normalize('NFD').replace(/\p{M}/gu, '')));
  return found;
}

/** As {@link allStems}, for the many texts that need no tables of letters. */
function asciiStems(lower: string): Set<string> {
  const found = new Set<string>();
  let from = 0;
  for (let at = 0; at <= lower.length; at++) {
    const code = lower.charCodeAt(at);
    if ((code >= 97 && code <= 122) || (code >= 48 && code <= 57)) continue;
    if (at - from >= MIN_WORD) found.add(stemOf(lower.slice(from, at)));
    from = at + 1;
  }
  return found;
}

export function haveCommon(a: ReadonlySet<string>, b: ReadonlySet<string>): boolean {
  const [few, many] = a.size < b.size ? [a, b] : [b, a];
  for (const one of few) if (many.has(one)) return true;
  return false;
}
