/** What the words of a page's main content say about it: how many, which, and a fingerprint to find pages like it. */
import { HASH_PRIME, HASH_START, wordFilter } from './filter';
import { fingerprintOf } from './fingerprint';

/**
 * What a character is to the words, in bits: part of one, that and no digit, a word by itself (in a script without
 * spaces), or the first half of a character beyond 16 bits.
 */
const PART = 1 << 16;
const LETTER = 1 << 17;
const SIGN = 1 << 18;
const HALF = 1 << 19;
const MET = 1 << 20;

const sign = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]/u;
const letter = /[\p{L}\p{M}\p{N}]/u;
const digit = /\p{N}/u;

function kindOf(char: string): number {
  if (sign.test(char)) return SIGN;
  return letter.test(char) ? (digit.test(char) ? PART : PART | LETTER) : 0;
}

/** For each UTF-16 unit its kind and, in the lower 16 bits, its lower case; 0 until it is first met. */
const known = new Uint32Array(0x10000);

function lookUp(unit: number): number {
  const char = String.fromCharCode(unit);
  const kind = (unit & 0xfc00) === 0xd800 ? HALF : kindOf(char);
  return (known[unit] = MET | kind | char.toLowerCase().charCodeAt(0));
}

const NUMBER = Math.imul(HASH_START ^ 0x30, HASH_PRIME);

/** What may stand within a word, between parts of it: an apostrophe, straight or curly, or a hyphen. */
const isJoint = (unit: number) => unit === 0x27 || unit === 0x2d || unit === 0x2019;

/** Whether the character at a place is part of a word. */
const isPart = (text: string, at: number) =>
  at < text.length && ((known[text.charCodeAt(at)] || lookUp(text.charCodeAt(at))) & PART) !== 0;

/** A number for each word of a text, case apart; all numbers count as the same word. */
function hashWords(text: string): Uint32Array {
  // No more words than there are characters.
  const hashes = new Uint32Array(text.length);
  let words = 0;
  let hash = HASH_START;
  /** What the characters of the word at hand are, together; 0 between words. */
  let kinds = 0;
  const endWord = () => {
    if (kinds !== 0) hashes[words++] = kinds & LETTER ? hash : NUMBER;
    hash = HASH_START;
    kinds = 0;
  };
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
      hash = Math.imul(hash ^ low, HASH_PRIME);
      kinds |= kind;
    } else if (kinds && isJoint(unit) && isPart(text, at + 1)) {
      hash = Math.imul(hash ^ unit, HASH_PRIME);
      kinds |= LETTER;
    } else {
      endWord();
      if (kind & SIGN) hashes[words++] = Math.imul(HASH_START ^ low, HASH_PRIME);
    }
  }
  endWord();
  return hashes.subarray(0, words);
}

export interface Words {
  /** How many: runs of letters and digits with the apostrophes and hyphens within. */
  wordCount: number;
  /** High and low 32 bits; null for a text without words. */
  fingerprint: [number, number] | null;
  /** See filter.ts. */
  wordFilter: Uint8Array;
}

/**
 * Counts the words of a text, gives its fingerprint, and which words it has. Numbers count as equal in the fingerprint,
 * so that pages that differ in dates or prices only are found alike.
 */
export function readWords(text: string): Words {
  const hashes = hashWords(text);
  return {
    wordCount: hashes.length,
    fingerprint: hashes.length ? fingerprintOf(hashes) : null,
    wordFilter: wordFilter(text),
  };
}
