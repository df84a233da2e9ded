/**
 * Which words a text has, in a few bytes: a Bloom filter over the stems of its words (Bloom, "Space/time trade-offs in
 * hash coding with allowable errors", 1970). It never denies a word that is there; of words that are not, it takes
 * about one in twenty for there, and more in texts of many hundreds of different words.
 */
import { HASH_PRIME, HASH_START } from './eachWord';
import { allStems } from './stems';

/** Bits for each different stem, up to the largest size. */
const BITS_EACH = 8;
const MIN_BYTES = 8;
export const MAX_FILTER_BYTES = 512;

/** FNV-1a over the UTF-16 units of a stem. */
function hashOf(stem: string): number {
  let hash = HASH_START;
  for (let i = 0; i < stem.length; i++) hash = Math.imul(hash ^ stem.charCodeAt(i), HASH_PRIME);
  return hash;
}

const spreadOf = (hash: number) => Math.imul(hash ^ (hash >>> 15), 0x85ebca6b);
/** The two places of a hash among so many bits, which are a power of two: those among fewer are their low ends. */
const firstPlace = (spread: number, bits: number) => (spread >>> 4) & (bits - 1);
const secondPlace = (spread: number, bits: number) => (spread ^ (spread >>> 13)) & (bits - 1);

/** The filter of a text, no larger than it needs. */
export function wordFilter(text: string): Uint8Array {
  let filter: Uint8Array = new Uint8Array(MAX_FILTER_BYTES);
  /** Stems that set a bit: all different ones, but for a few at the largest size, where it no longer matters. */
  let different = 0;
  for (const stem of allStems(text)) {
    const spread = spreadOf(hashOf(stem));
    const places = [firstPlace(spread, 8 * MAX_FILTER_BYTES), secondPlace(spread, 8 * MAX_FILTER_BYTES)];
    if (places.every((place) => filter[place >> 3] & (1 << (place & 7)))) continue;
    different++;
    for (const place of places) filter[place >> 3] |= 1 << (place & 7);
  }
  while (filter.length > MIN_BYTES && 4 * filter.length >= different * BITS_EACH) {
    const half = filter.length / 2;
    const whole = filter;
    filter = whole.slice(0, half).map((byte, i) => byte | whole[half + i]);
  }
  return filter;
}

/**
 * Whether a text may have one of some stems.
 * @param filter of the text; empty when that is not known, which denies none
 */
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
