/** What the words of a page's main content say about it: how many, which, and a fingerprint to find pages like it. */
import { addStemHash, addStems, draftFilter, finishFilter, HASH_PRIME, HASH_START, MIN_WORD, STEM } from '../words';
import type { FilterDraft } from '../words';

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

const ASCII_END = 0x80;
const APOSTROPHE = 0x27;
const HYPHEN = 0x2d;
const CURLY_APOSTROPHE = 0x2019;
const LETTER_S = 0x73;
const NO_BREAK_SPACE = 0xa0;
/** Whether a unit beyond ASCII is a space or a general punctuation mark, of which many pages are full. */
const isMark = (unit: number) => unit === NO_BREAK_SPACE || (unit >= 0x2000 && unit <= 0x206f);

/** Where the words of one text after the other are put. */
let room = new Uint32Array(1 << 14);

/** How far a text has been read. */
interface Reading {
  text: string;
  at: number;
  /** The numbers of its words, and how many there were. */
  hashes: Uint32Array;
  words: number;
  /** Of the word at hand: its number so far, and what its characters are, together; 0 between words. */
  hash: number;
  kinds: number;
  /** Where the last mark ended. */
  from: number;
  filter: FilterDraft;
}

/** Adds the stem of what stands between two marks, if it has one and is ASCII. */
function addAsciiStem(filter: FilterDraft, text: string, from: number, to: number): void {
  const length = to - from;
  if (length < MIN_WORD) return;
  const isPlural = length > MIN_WORD && length <= STEM && (text.charCodeAt(to - 1) | 0x20) === LETTER_S;
  const end = isPlural ? to - 1 : Math.min(to, from + STEM);
  let hash = HASH_START;
  for (let i = from; i < end; i++) hash = Math.imul(hash ^ (known[text.charCodeAt(i)] & 0xffff), HASH_PRIME);
  addStemHash(filter, hash);
}

/** Reads on as long as there is ASCII, as there is most of the time: apart from what is seldom, so that it is compiled once. */
function readAscii(reading: Reading): void {
  const { text, hashes, filter } = reading;
  const { length } = text;
  let { at, words, hash, kinds, from } = reading;
  for (; at < length; at++) {
    const unit = text.charCodeAt(at);
    if (unit >= ASCII_END) break;
    const entry = known[unit] || lookUp(unit);
    if (entry & PART) {
      hash = Math.imul(hash ^ (entry & 0xffff), HASH_PRIME);
      kinds |= entry;
      continue;
    }
    addAsciiStem(filter, text, from, at);
    from = at + 1;
    if (kinds === 0) continue;
    if ((unit === APOSTROPHE || unit === HYPHEN) && joins(text, from)) {
      hash = Math.imul(hash ^ unit, HASH_PRIME);
      kinds |= LETTER;
      continue;
    }
    hashes[words++] = kinds & LETTER ? hash : NUMBER;
    hash = HASH_START;
    kinds = 0;
  }
  reading.at = at;
  reading.words = words;
  reading.hash = hash;
  reading.kinds = kinds;
  reading.from = from;
}

function endWord(reading: Reading): void {
  if (reading.kinds === 0) return;
  reading.hashes[reading.words++] = reading.kinds & LETTER ? reading.hash : NUMBER;
  reading.hash = HASH_START;
  reading.kinds = 0;
}

/** Reads from a character that is not ASCII to the next mark. */
function readBeyond(reading: Reading): void {
  const { text, filter } = reading;
  let isBetween = false;
  for (const begin = reading.at; reading.at < text.length && !isBetween;) {
    const { at } = reading;
    const unit = text.charCodeAt(at);
    let kind = known[unit] || lookUp(unit);
    let low = kind & 0xffff;
    let size = 1;
    if (kind & HALF) {
      const char = String.fromCodePoint(text.codePointAt(at)!);
      kind = kindOf(char);
      low = char.toLowerCase().codePointAt(0)!;
      size = char.length;
    }
    isBetween = (unit < ASCII_END && !(kind & PART)) || isMark(unit);
    if (isBetween) {
      // Up to here all was ASCII.
      if (at === begin) addAsciiStem(filter, text, reading.from, at);
      else addStems(filter, text.slice(reading.from, at));
      reading.from = at + 1;
    }
    const mayJoin = unit === APOSTROPHE || unit === HYPHEN || unit === CURLY_APOSTROPHE;
    if (kind & PART) {
      reading.hash = Math.imul(reading.hash ^ low, HASH_PRIME);
      reading.kinds |= kind;
    } else if (reading.kinds && mayJoin && joins(text, at + 1)) {
      reading.hash = Math.imul(reading.hash ^ unit, HASH_PRIME);
      reading.kinds |= LETTER;
    } else {
      endWord(reading);
      if (kind & SIGN) reading.hashes[reading.words++] = Math.imul(HASH_START ^ low, HASH_PRIME);
    }
    reading.at += size;
  }
  if (!isBetween) {
    addStems(filter, text.slice(reading.from));
    reading.from = text.length;
  }
}

/**
 * A number for each word of a text, case apart; all numbers count as the same word. Holds until it is called again. Fills
 * the filter with the text's stems meanwhile: pages have hundreds of thousands of words, whose characters are looked at once,
 * and a text for each would take longer than the rest of the parser.
 */
function hashWords(text: string, filter: FilterDraft): Uint32Array {
  // As many as there are characters, at most.
  if (room.length < text.length) room = new Uint32Array(2 * text.length);
  const reading: Reading = { text, at: 0, hashes: room, words: 0, hash: HASH_START, kinds: 0, from: 0, filter };
  for (;;) {
    readAscii(reading);
    if (reading.at === text.length) break;
    readBeyond(reading);
  }
  addAsciiStem(filter, text, reading.from, text.length);
  endWord(reading);
  return reading.hashes.subarray(0, reading.words);
}

/** Three words in a row, or those of a text that has fewer. */
function featureAt(hashes: Uint32Array, from: number): number {
  let value = 0;
  for (let i = from; i < from + SHINGLE && i < hashes.length; i++) value = (Math.imul(value, 31) + hashes[i]) | 0;
  return value;
}

function fingerprintOf(hashes: Uint32Array): [number, number] {
  // How often each byte value occurs at each of the eight places of a feature: its bits are counted once, at the end.
  const counts = new Uint32Array(8 * 256);
  const features = Math.max(1, hashes.length - SHINGLE + 1);
  for (let i = 0; i < features; i++) {
    const value = mix(featureAt(hashes, i));
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

/**
 * The bits that are set in more than half of what was counted.
 * @param counts by byte values at four places; they are summed up in place, from the highest bit on
 */
function majority(counts: Uint32Array, features: number): number {
  let bits = 0;
  for (let place = 0; place < 4; place++) {
    const first = 256 * place;
    for (let bit = 7; bit >= 0; bit--) {
      const half = 1 << bit;
      let set = 0;
      for (let low = first; low < first + half; low++) {
        set += counts[low + half];
        counts[low] += counts[low + half];
      }
      if (2 * set > features) bits |= 1 << (8 * place + bit);
    }
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
