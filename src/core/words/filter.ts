/**
 * Which words a text has, in a few bytes: a Bloom filter over the stems of its words (Bloom, "Space/time trade-offs in hash
 * coding with allowable errors", 1970). It never denies a word that is there; of words that are not, it takes about one in
 * twenty for there, and more in texts of many hundreds of different words.
 */
import { stems } from './stems';

/** Bits for each different stem, up to the largest size. */
const BITS_EACH = 8;
const MIN_BYTES = 8;
export const MAX_FILTER_BYTES = 512;

const HASH_START = 0x811c9dc5;
const HASH_PRIME = 0x01000193;

/** FNV-1a over the UTF-16 units of a stem. */
function hashOf(stem: string): number {
  let hash = HASH_START;
  for (let i = 0; i < stem.length; i++) hash = Math.imul(hash ^ stem.charCodeAt(i), HASH_PRIME);
  return hash;
}

const MIN_WORD = 3;
const STEM = 5;
const LETTER_S = 115;
const NOT_ASCII = 128;
const NO_BREAK_SPACE = 0xa0;

/** By ASCII code the lower case of letters and digits; 0 for what stands between words. */
const lowerCase = Uint8Array.from({ length: NOT_ASCII }, (_, code) => {
  const char = String.fromCharCode(code).toLowerCase();
  return /[0-9a-z]/.test(char) ? char.charCodeAt(0) : 0;
});

/** Whether a unit beyond ASCII is a space or a general punctuation mark, of which many pages are full. */
const isMark = (unit: number) => unit === NO_BREAK_SPACE || (unit >= 0x2000 && unit <= 0x206f);

/**
 * Calls back for the hash of every stem of a text, as often as it occurs. Words of ASCII, which are most, are gone through
 * as they stand, each character once: pages have hundreds of thousands of them, and a text for each takes longer than the
 * rest of the parser.
 */
function eachStemHash(text: string, visit: (hash: number) => void): void {
  let from = 0;
  let isPlain = true;
  /** Of the stem so far, and of it without its last letter, which may turn out to be the ending of a plural. */
  let hash = HASH_START;
  let shorter = HASH_START;
  let last = 0;
  for (let at = 0; at <= text.length; at++) {
    const unit = at < text.length ? text.charCodeAt(at) : 0;
    const low = unit < NOT_ASCII ? lowerCase[unit] : isMark(unit) ? 0 : unit;
    if (low !== 0) {
      if (unit >= NOT_ASCII) isPlain = false;
      if (at - from < STEM) {
        shorter = hash;
        hash = Math.imul(hash ^ low, HASH_PRIME);
      }
      last = low;
      continue;
    }
    const length = at - from;
    if (!isPlain) for (const stem of stems(text.slice(from, at))) visit(hashOf(stem));
    else if (length >= MIN_WORD) visit(last === LETTER_S && length > MIN_WORD && length <= STEM ? shorter : hash);
    from = at + 1;
    isPlain = true;
    hash = HASH_START;
  }
}

const spreadOf = (hash: number) => Math.imul(hash ^ (hash >>> 15), 0x85ebca6b);
/** The two places of a hash among so many bits, which are a power of two: those among fewer are their low ends. */
const firstPlace = (spread: number, bits: number) => (spread >>> 4) & (bits - 1);
const secondPlace = (spread: number, bits: number) => (spread ^ (spread >>> 13)) & (bits - 1);

/** The filter of a text. */
export function wordFilter(text: string): Uint8Array {
  let filter = new Uint8Array(MAX_FILTER_BYTES);
  const bits = 8 * MAX_FILTER_BYTES;
  /** Stems that set a bit: all different ones, but for a few at the largest size, where it no longer matters. */
  let different = 0;
  eachStemHash(text, (hash) => {
    const spread = spreadOf(hash);
    const first = firstPlace(spread, bits);
    const second = secondPlace(spread, bits);
    const firstBit = 1 << (first & 7);
    const secondBit = 1 << (second & 7);
    if ((filter[first >> 3] & firstBit) !== 0 && (filter[second >> 3] & secondBit) !== 0) return;
    different++;
    filter[first >> 3] |= firstBit;
    filter[second >> 3] |= secondBit;
  });
  while (filter.length > MIN_BYTES && 4 * filter.length >= different * BITS_EACH) {
    const half = filter.length / 2;
    filter = filter.slice(0, half).map((byte, i) => byte | filter[half + i]);
  }
  return filter;
}

/** Whether a text may have one of some stems. @param filter of the text; empty when that is not known, which denies none */
export function mayHaveAny(filter: Uint8Array, wanted: Iterable<string>): boolean {
  if (filter.length === 0) return true;
  const bits = 8 * filter.length;
  const has = (place: number) => (filter[place >> 3] & (1 << (place & 7))) !== 0;
  for (const stem of wanted) {
    const spread = spreadOf(hashOf(stem));
    if (has(firstPlace(spread, bits)) && has(secondPlace(spread, bits))) return true;
  }
  return false;
}
