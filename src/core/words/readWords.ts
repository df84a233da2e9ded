/** What the words of a page's main content say about it: how many, which, and a fingerprint to find pages like it. */
import { eachWord, HASH_PRIME, HASH_START } from './eachWord';
import { wordFilter } from './filter';
import { fingerprintOf } from './fingerprint';

const NUMBER = Math.imul(HASH_START ^ 0x30, HASH_PRIME);

/** A number for each word of a text, case apart; all numbers count as the same word. */
function hashWords(text: string): Uint32Array {
  // No more words than there are characters.
  const hashes = new Uint32Array(text.length);
  let words = 0;
  eachWord(text, (_from, _to, kind, hash) => (hashes[words++] = kind === 'number' ? NUMBER : hash));
  return hashes.subarray(0, words);
}

export interface Words {
  /** How many (see `eachWord`). */
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
