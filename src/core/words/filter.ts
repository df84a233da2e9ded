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

/** Of FNV-1a. */
export const HASH_START = 0x811c9dc5;
export const HASH_PRIME = 0x01000193;

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

/** A filter of the largest size while its text is read. */
export interface FilterDraft {
  bytes: Uint8Array;
  /** Stems that set a bit: all different ones, but for a few at the largest size, where it no longer matters. */
  different: number;
}

export const draftFilter = (): FilterDraft => ({ bytes: new Uint8Array(MAX_FILTER_BYTES), different: 0 });

/** @param hash FNV-1a over the UTF-16 units of a stem */
export function addStemHash(draft: FilterDraft, hash: number): void {
  const { bytes } = draft;
  const spread = spreadOf(hash);
  const first = firstPlace(spread, 8 * MAX_FILTER_BYTES);
  const second = secondPlace(spread, 8 * MAX_FILTER_BYTES);
  const firstBit = 1 << (first & 7);
  const secondBit = 1 << (second & 7);
  if ((bytes[first >> 3] & firstBit) !== 0 && (bytes[second >> 3] & secondBit) !== 0) return;
  draft.different++;
  bytes[first >> 3] |= firstBit;
  bytes[second >> 3] |= secondBit;
}

/** Adds every stem of a text. */
export function addStems(draft: FilterDraft, text: string): void {
  for (const stem of stems(text)) addStemHash(draft, hashOf(stem));
}

/** The filter, no larger than its text needs. */
export function finishFilter({ bytes, different }: FilterDraft): Uint8Array {
  let filter = bytes;
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
