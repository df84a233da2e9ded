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
const isWordUnit = (unit: number) => (unit >= 97 && unit <= 122) || (unit >= 48 && unit <= 57) || unit >= 128;

/**
 * Calls back for the hash of every stem of a text, as often as it occurs. Words of ASCII, which are most, are gone through
 * as they stand: pages have hundreds of thousands of them, and a text for each takes longer than the rest of the parser.
 */
function eachStemHash(text: string, visit: (hash: number) => void): void {
  const lower = text.toLowerCase();
  let from = 0;
  let isPlain = true;
  for (let at = 0; at <= lower.length; at++) {
    const unit = at < lower.length ? lower.charCodeAt(at) : 0;
    if (isWordUnit(unit)) {
      if (unit >= 128) isPlain = false;
      continue;
    }
    if (!isPlain) for (const stem of stems(lower.slice(from, at))) visit(hashOf(stem));
    else if (at - from >= MIN_WORD) {
      const isPlural = at - from > MIN_WORD && lower.charCodeAt(at - 1) === LETTER_S;
      const end = Math.min(from + STEM, isPlural ? at - 1 : at);
      let hash = HASH_START;
      for (let i = from; i < end; i++) hash = Math.imul(hash ^ lower.charCodeAt(i), HASH_PRIME);
      visit(hash);
    }
    from = at + 1;
    isPlain = true;
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
  const different = new Set<number>();
  eachStemHash(text, (hash) => {
    // More of them would change nothing of the size.
    if (different.size * BITS_EACH <= bits) different.add(hash);
    const spread = spreadOf(hash);
    const [first, second] = [firstPlace(spread, bits), secondPlace(spread, bits)];
    filter[first >> 3] |= 1 << (first & 7);
    filter[second >> 3] |= 1 << (second & 7);
  });
  while (filter.length > MIN_BYTES && 4 * filter.length >= different.size * BITS_EACH) {
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
