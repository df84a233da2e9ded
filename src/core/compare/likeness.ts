/** How much the main content of pages of two crawls is alike, by its fingerprints (src/core/words/fingerprint.ts). */
import { fingerprintDistance } from '../words';
import type { Snapshot } from '../snapshot';

const BITS = 64;

type Fingerprint = [high: number, low: number];
const fingerprintAt = ({ fingerprints }: Snapshot, page: number): Fingerprint => [
  fingerprints[2 * page],
  fingerprints[2 * page + 1],
];
const isKnown = ([high, low]: Fingerprint) => high !== 0 || low !== 0;

/**
 * The part of the bits that agrees, about half of which do by chance: 1 for the same text; NaN where a page has no
 * text.
 */
export function likenessOf(old: Snapshot, fresh: Snapshot, was: number, is: number): number {
  if (was < 0 || is < 0) return NaN;
  const [then, now] = [fingerprintAt(old, was), fingerprintAt(fresh, is)];
  return isKnown(then) && isKnown(now) ? 1 - fingerprintDistance(then, now) / BITS : NaN;
}

/** Whether the text of a page is another, or one of the two has none. */
export function contentDiffers(old: Snapshot, fresh: Snapshot, was: number, is: number): boolean {
  const [then, now] = [fingerprintAt(old, was), fingerprintAt(fresh, is)];
  return then[0] !== now[0] || then[1] !== now[1];
}

/** A key that is the same for the same text under the same title; null where there is no text. */
export function contentKey(snapshot: Snapshot, page: number): string | null {
  const print = fingerprintAt(snapshot, page);
  const title = snapshot.column('title');
  const words = snapshot.column('word_count');
  return isKnown(print) ? `${print.join(' ')} ${words[page]} ${title.values[title.codes[page]]}` : null;
}
