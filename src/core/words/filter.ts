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
 * The hashes of the stems of a text. Words of ASCII, which are most, are gone through as they stand: pages have hundreds of
 * thousands of them, and a text for each takes longer than the rest of the parser.
 */
function stemHashes(text: string): Set<number> {
  const lower = text.toLowerCase();
  const found = new Set<number>();
  let from = 0;
  let isPlain = true;
  for (let at = 0; at <= lower.length; at++) {
    const unit = at < lower.length ? lower.charCodeAt(at) : 0;
    if (isWordUnit(unit)) {
      if (unit >= 128) isPlain = false;
      continue;
    }
    if (!isPlain) for (const stem of stems(lower.slice(from, at))) found.add(hashOf(stem));
    else if (at - from >= MIN_WORD) {
      const isPlural = at - from > MIN_WORD && lower.charCodeAt(at - 1) === LETTER_S;
      const end = Math.min(from + STEM, isPlural ? at - 1 : at);
      let hash = HASH_START;
      for (let i = from; i < end; i++) hash = Math.imul(hash ^ lower.charCodeAt(i), HASH_PRIME);
      found.add(hash);
    }
    from = at + 1;
    isPlain = true;
  }
  return found;
}

/** The two places of a hash among so many bits, which are a power of two. */
const placesOf = (hash: number, bits: number): [number, number] => {
  const spread = Math.imul(hash ^ (hash >>> 15), 0x85ebca6b);
  return [(spread >>> 4) & (bits - 1), (spread ^ (spread >>> 13)) & (bits - 1)];
};

/** The filter of a text. */
export function wordFilter(text: string): Uint8Array {
  const found = stemHashes(text);
  let bytes = MIN_BYTES;
  while (bytes < MAX_FILTER_BYTES && bytes * 8 < found.size * BITS_EACH) bytes *= 2;
  const filter = new Uint8Array(bytes);
  for (const hash of found) for (const place of placesOf(hash, 8 * bytes)) filter[place >> 3] |= 1 << (place & 7);
  return filter;
}

/** Whether a text may have one of some stems. @param filter of the text; empty when that is not known, which denies none */
export function mayHaveAny(filter: Uint8Array, wanted: Iterable<string>): boolean {
  if (filter.length === 0) return true;
  for (const stem of wanted)
    if (placesOf(hashOf(stem), 8 * filter.length).every((place) => filter[place >> 3] & (1 << (place & 7))))
      return true;
  return false;
}
