/**
 * The words of a text, for whoever counts, compares or looks them up: runs of letters, marks and digits with the
 * apostrophes and hyphens within; in scripts that are written without spaces, every sign by itself.
 */

/** What a character is to the words, in bits: part of one, that and no digit, a word by itself, or half a character. */
const PART = 1 << 16;
const LETTER = 1 << 17;
const SIGN = 1 << 18;
const HALF = 1 << 19;
const MET = 1 << 20;

const unspaced = 'Han Hiragana Katakana Thai Lao Khmer Myanmar Tibetan'.split(' ');
const sign = new RegExp(`[${unspaced.map((script) => `\\p{Script=${script}}`).join('')}]`, 'u');
/** The mark that makes a vowel long stands in no script of its own. */
const isSignChar = (char: string) => char === 'ー' || (sign.test(char) && !/\p{N}/u.test(char));
const letter = /[\p{L}\p{M}\p{N}]/u;
const digit = /\p{N}/u;

function kindOf(char: string): number {
  if (isSignChar(char)) return SIGN;
  return letter.test(char) ? (digit.test(char) ? PART : PART | LETTER) : 0;
}

/** For each UTF-16 unit its kind and, in the lower 16 bits, its lower case; 0 until it is first met. */
const known = new Uint32Array(0x10000);

function lookUp(unit: number): number {
  const char = String.fromCharCode(unit);
  const kind = (unit & 0xfc00) === 0xd800 ? HALF : kindOf(char);
  return (known[unit] = MET | kind | char.toLowerCase().charCodeAt(0));
}

/** What may stand within a word, between parts of it: an apostrophe, straight or curly, or a hyphen. */
const isJoint = (unit: number) => unit === 0x27 || unit === 0x2d || unit === 0x2019;

/** Whether the character at a place is part of a word. */
const isPart = (text: string, at: number) =>
  at < text.length && ((known[text.charCodeAt(at)] || lookUp(text.charCodeAt(at))) & PART) !== 0;

/** What is told of each word: where it stands in UTF-16 units, and what it is. */
export type OnWord = (from: number, to: number, kind: WordKind, hash: number) => void;
export type WordKind = 'letters' | 'number' | 'sign';

/** Of FNV-1a. */
export const HASH_START = 0x811c9dc5;
export const HASH_PRIME = 0x01000193;

/** Calls back for each word of a text in its order, with a hash (FNV-1a) of its characters in lower case. */
export function eachWord(text: string, onWord: OnWord): void {
  let from = 0;
  let hash = HASH_START;
  /** What the characters of the word at hand are, together; 0 between words. */
  let kinds = 0;
  let size: number;
  for (let at = 0; at < text.length; at += size) {
    const unit = text.charCodeAt(at);
    let kind = known[unit] || lookUp(unit);
    let low = kind & 0xffff;
    size = 1;
    if (kind & HALF) {
      const char = String.fromCodePoint(text.codePointAt(at)!);
      kind = kindOf(char);
      low = char.toLowerCase().codePointAt(0)!;
      size = char.length;
    }
    if (kind & PART) {
      if (kinds === 0) from = at;
      hash = Math.imul(hash ^ low, HASH_PRIME);
      kinds |= kind;
    } else if (kinds && isJoint(unit) && isPart(text, at + 1)) {
      hash = Math.imul(hash ^ unit, HASH_PRIME);
      kinds |= LETTER;
    } else {
      if (kinds) onWord(from, at, kinds & LETTER ? 'letters' : 'number', hash);
      hash = HASH_START;
      kinds = 0;
      if (kind & SIGN) onWord(at, at + size, 'sign', Math.imul(HASH_START ^ low, HASH_PRIME));
    }
  }
  if (kinds) onWord(from, text.length, kinds & LETTER ? 'letters' : 'number', hash);
}
