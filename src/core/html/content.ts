/** What the words of a page's main content say about it: how many, which, and a fingerprint to find pages like it. */
import { addStemHash, addStems, draftFilter, finishFilter, HASH_PRIME, HASH_START, MIN_WORD, STEM } from '../words';
import type { FilterDraft } from '../words';

/**
 * What a character is to the words, in bits: part of one, that and no digit, a word by itself (in a script without
 * spaces), the first half of a character beyond 16 bits, or one beyond ASCII.
 */
const PART = 1 << 16;
const LETTER = 1 << 17;
const SIGN = 1 << 18;
const HALF = 1 << 19;
const WIDE = 1 << 20;
const MET = 1 << 21;

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
  return (known[unit] = MET | kind | (unit < 128 ? 0 : WIDE) | char.toLowerCase().charCodeAt(0));
}

/** Words in a row that make one feature. */
const SHINGLE = 3;

const NUMBER = Math.imul(HASH_START ^ 0x30, HASH_PRIME);

/** The finalizer of MurmurHash3, which spreads every bit over all others. */
function mix(value: number): number {
  value = Math.imul(value ^ (value >>> 16), 0x85ebca6b);
  value = Math.imul(value ^ (value >>> 13), 0xc2b2ae35);
  return (value ^ (value >>> 16)) >>> 0;
}

/** Whether an apostrophe or a hyphen before this place stands within a word. */
function joins(text: string, at: number): boolean {
  if (at >= text.length) return false;
  const unit = text.charCodeAt(at);
  return ((known[unit] || lookUp(unit)) & PART) !== 0;
}

/** Where the words of one text after the other are put. */
let room = new Uint32Array(1 << 14);

const LETTER_S = 0x73;
const NO_BREAK_SPACE = 0xa0;
/** Whether a unit beyond ASCII is a space or a general punctuation mark, of which many pages are full. */
const isMark = (unit: number) => unit === NO_BREAK_SPACE || (unit >= 0x2000 && unit <= 0x206f);

/**
 * Adds the stem of what stands between two marks, if it has one.
 * @param stem the hash of its first letters, as many as a stem has at most
 * @param shorter that without the last of them, which may turn out to be the ending of a plural
 */
function addStem(filter: FilterDraft, text: string, from: number, to: number, stem: number, shorter: number): void {
  const length = to - from;
  if (length < MIN_WORD) return;
  const isPlural = length > MIN_WORD && length <= STEM && (text.charCodeAt(to - 1) | 0x20) === LETTER_S;
  addStemHash(filter, isPlural ? shorter : stem);
}

/**
 * A number for each word of a text, case apart; all numbers count as the same word. Holds until it is called again. Fills
 * the filter with the text's stems meanwhile: pages have hundreds of thousands of words, whose characters are looked at once,
 * and a text for each would take longer than the rest of the parser.
 */
function hashWords(text: string, filter: FilterDraft): Uint32Array {
  const { length } = text;
  // As many as there are characters, at most.
  if (room.length < length) room = new Uint32Array(2 * length);
  const hashes = room;
  let words = 0;
  let hash = HASH_START;
  /** What the characters of the word at hand are, together; 0 between words. */
  let kinds = 0;
  /** Where the last mark ended, whether something beyond ASCII came since, and hashes for the stem. */
  let from = 0;
  let isWide = false;
  let stem = HASH_START;
  let shorter = HASH_START;
  for (let i = 0; i < length; i++) {
    const unit = text.charCodeAt(i);
    const entry = known[unit] || lookUp(unit);
    if (entry & PART) {
      const low = entry & 0xffff;
      hash = Math.imul(hash ^ low, HASH_PRIME);
      kinds |= entry;
      if (i - from < STEM) {
        shorter = stem;
        stem = Math.imul(stem ^ low, HASH_PRIME);
      }
      continue;
    }
    const isBetween = !(entry & WIDE) || isMark(unit);
    isWide ||= !isBetween || (kinds & WIDE) !== 0;
    if (isBetween) {
      if (isWide) addStems(filter, text.slice(from, i));
      else addStem(filter, text, from, i, stem, shorter);
      from = i + 1;
      isWide = false;
      stem = HASH_START;
    }
    let kind = entry;
    let low = entry & 0xffff;
    if (kind & HALF) {
      const char = String.fromCodePoint(text.codePointAt(i)!);
      kind = kindOf(char);
      low = char.toLowerCase().codePointAt(0)!;
      i += char.length - 1;
      if (kind & PART) {
        hash = Math.imul(hash ^ low, HASH_PRIME);
        kinds |= kind;
        continue;
      }
    }
    if (kinds) {
      if ((unit === 0x27 || unit === 0x2d || unit === 0x2019) && joins(text, i + 1)) {
        hash = Math.imul(hash ^ unit, HASH_PRIME);
        kinds |= LETTER;
        continue;
      }
      hashes[words++] = kinds & LETTER ? hash : NUMBER;
      hash = HASH_START;
      kinds = 0;
    }
    if (kind & SIGN) hashes[words++] = Math.imul(HASH_START ^ low, HASH_PRIME);
  }
  if (isWide || (kinds & WIDE) !== 0) addStems(filter, text.slice(from));
  else addStem(filter, text, from, length, stem, shorter);
  if (kinds) hashes[words++] = kinds & LETTER ? hash : NUMBER;
  return hashes.subarray(0, words);
}

function fingerprintOf(hashes: Uint32Array): [number, number] {
  // How often each byte value occurs at each of the eight places of a feature: its bits are counted once, at the end.
  const counts = new Uint32Array(8 * 256);
  const features = Math.max(1, hashes.length - SHINGLE + 1);
  for (let i = 0; i < features; i++) {
    let value = 0;
    for (let j = i; j < i + SHINGLE && j < hashes.length; j++) value = (Math.imul(value, 31) + hashes[j]) | 0;
    value = mix(value);
    const other = mix(value ^ 0x9e3779b9);
    for (let byte = 0; byte < 4; byte++) {
      counts[byte * 256 + ((value >>> (8 * byte)) & 255)]++;
      counts[(byte + 4) * 256 + ((other >>> (8 * byte)) & 255)]++;
    }
  }
  return [majority(counts.subarray(0, 1024), features), majority(counts.subarray(1024), features)];
}

export interface Words {
  /** How many: runs of letters and digits with the apostrophes and hyphens within. */
  wordCount: number;
  /** High and low 32 bits; null for a text without words. */
  fingerprint: [number, number] | null;
  /** See `src/core/words/filter.ts`. */
  wordFilter: Uint8Array;
}

/**
 * Counts the words of a text and gives a 64-bit fingerprint whose distance in bits grows with the difference of two
 * texts (Charikar, "Similarity estimation techniques from rounding algorithms", 2002), over runs of three words, case
 * apart. Numbers count as equal, so that pages that differ in dates or prices only are found alike.
 */
export function readWords(text: string): Words {
  const filter = draftFilter();
  const hashes = hashWords(text, filter);
  return {
    wordCount: hashes.length,
    fingerprint: hashes.length ? fingerprintOf(hashes) : null,
    wordFilter: finishFilter(filter),
  };
}

/** The bits that are set in more than half of what was counted, by byte values at four places. */
function majority(counts: Uint32Array, features: number): number {
  let bits = 0;
  for (let bit = 0; bit < 32; bit++) {
    const place = (bit >>> 3) * 256;
    let set = 0;
    for (let value = 0; value < 256; value++) if ((value >>> (bit & 7)) & 1) set += counts[place + value];
    if (2 * set > features) bits |= 1 << bit;
  }
  return bits >>> 0;
}

function bitsSet(value: number): number {
  let count = 0;
  for (; value !== 0; value &= value - 1) count++;
  return count;
}

/** In how many of 64 bits two fingerprints differ. */
export const fingerprintDistance = (a: readonly [number, number], b: readonly [number, number]) =>
  bitsSet(a[0] ^ b[0]) + bitsSet(a[1] ^ b[1]);
