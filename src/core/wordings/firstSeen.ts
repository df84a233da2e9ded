/** Since when links to a page have their words: what each crawl hands on to the next. */
import { CLICK_KIND } from '../links';
import { addressAt } from '../snapshot';
import type { View } from '../view';

/** By wording the crawl that had it first, as seconds since 1970. */
export interface FirstSeen {
  /** Of a wording by its hash, in order. */
  keys: Float64Array;
  seconds: Uint32Array;
}

export const noneSeen: FirstSeen = { keys: new Float64Array(0), seconds: new Uint32Array(0) };
/** Wordings that are handed on; of more, those that the crawl itself has. */
const MOST_KEPT = 2_000_000;

/** A hash of 52 bits (two of FNV-1a): of a million wordings, two have the same in one of ten thousand sites. */
export function wordingKey(target: string, anchor: string, fragment: string): number {
  let [low, high] = [0x811c9dc5, 0x9e3779b9];
  const text = `${target}\n${fragment}\n${anchor}`;
  for (let i = 0; i < text.length; i++) {
    low = Math.imul(low ^ text.charCodeAt(i), 0x01000193);
    high = Math.imul(high ^ text.charCodeAt(i), 0x85ebca6b);
  }
  return (low >>> 0) * 2 ** 20 + (high >>> 12);
}

/** Where a key is among others; −1 when it is not. */
function find(keys: Float64Array, key: number): number {
  let [low, high] = [0, keys.length - 1];
  while (low <= high) {
    const middle = (low + high) >> 1;
    if (keys[middle] === key) return middle;
    if (keys[middle] < key) low = middle + 1;
    else high = middle - 1;
  }
  return -1;
}

/** When a wording was first seen, in seconds since 1970; null when no crawl has told. */
export function seenSince({ keys, seconds }: FirstSeen, key: number): number | null {
  const at = find(keys, key);
  return at < 0 ? null : seconds[at];
}

/**
 * The wordings of a crawl beside those of the one before it.
 * @param began when the crawl did, in seconds since 1970
 */
export function firstSeenIn(view: View, before: FirstSeen, began: number): FirstSeen {
  const { count, links, phrases } = view;
  const { offsets, kind, target, anchor, fragment } = links;
  const found = new Map<number, number>();
  const done = new Set<number>();
  const codes = phrases.length;
  for (let page = 0; page < count; page++)
    for (let link = offsets[page]; link < offsets[page + 1]; link++) {
      const to = target[link];
      if (kind[link] !== CLICK_KIND || to >= count || to === page) continue;
      // Most links are the same as many others, and have no fragment.
      if (fragment[link] === 0) {
        const code = to * codes + anchor[link];
        if (done.has(code)) continue;
        done.add(code);
      }
      const key = wordingKey(addressAt(view, to), phrases[anchor[link]], phrases[fragment[link]]);
      found.set(key, seenSince(before, key) ?? began);
    }
  for (let i = 0; i < before.keys.length && found.size < MOST_KEPT; i++)
    if (!found.has(before.keys[i])) found.set(before.keys[i], before.seconds[i]);
  const keys = Float64Array.from(found.keys()).sort();
  return { keys, seconds: Uint32Array.from(keys, (key) => found.get(key)!) };
}

/** The stored form: all keys, then all seconds. */
export function packFirstSeen({ keys, seconds }: FirstSeen): Uint8Array {
  const bytes = new Uint8Array(12 * keys.length);
  new Float64Array(bytes.buffer, 0, keys.length).set(keys);
  new Uint32Array(bytes.buffer, 8 * keys.length).set(seconds);
  return bytes;
}

/** @param bytes may begin anywhere in a larger buffer */
export function unpackFirstSeen(bytes: Uint8Array): FirstSeen {
  const { buffer, length } = new Uint8Array(bytes);
  const count = Math.floor(length / 12);
  return { keys: new Float64Array(buffer, 0, count), seconds: new Uint32Array(buffer, 8 * count, count) };
}
