/** Pages with the same content, and with nearly the same. */
import { fingerprintDistance } from '../html';

/** How many other pages have the same value; −1 where it is unknown. */
export function countEqual(values: readonly (string | null)[]): Int32Array {
  const times = new Map<string, number>();
  for (const value of values) if (value !== null) times.set(value, (times.get(value) ?? 0) + 1);
  return Int32Array.from(values, (value) => (value === null ? -1 : times.get(value)! - 1));
}

type Fingerprint = readonly [number, number];

/**
 * Keys under which two fingerprints that differ in few bits meet at least once. By the pigeonhole principle, of four
 * pieces of 16 bits one is equal when 3 bits differ; of eight pieces of 8 bits two are when 6 bits differ.
 */
function keysOf([high, low]: Fingerprint, tolerance: number): number[] {
  const word = (i: number) => ((i < 2 ? high : low) >>> (16 * (1 - (i & 1)))) & 0xffff;
  if (tolerance <= 3) return [0, 1, 2, 3].map(word);
  const byte = (i: number) => ((i < 4 ? high : low) >>> (8 * (3 - (i & 3)))) & 0xff;
  const keys: number[] = [];
  for (let a = 0; a < 8; a++) for (let b = a + 1; b < 8; b++) keys.push(byte(a) * 256 + byte(b));
  return keys;
}

export interface NearDuplicates {
  /** How many other pages are alike and not the same; −1 for pages without a fingerprint. */
  alike: Int32Array;
  /** The group of pages that are alike, from 1, largest first; −1 for pages in none. */
  group: Int32Array;
}

/**
 * Finds pages whose fingerprints differ in at most `tolerance` of 64 bits, exact duplicates apart.
 * @param content what tells exact duplicates: equal values are the same page
 * @param tolerance 0 to {@link MAX_TOLERANCE}
 */
export function nearDuplicates(
  fingerprints: readonly (Fingerprint | null)[],
  content: readonly (string | null)[],
  tolerance: number,
): NearDuplicates {
  // Pages of one fingerprint and one content are looked at once, however many they are.
  const kinds = new Map<string, number>();
  const first: number[] = [];
  const times: number[] = [];
  const kindOf = Int32Array.from(fingerprints, (fingerprint, page) => {
    if (!fingerprint) return -1;
    const key = `${fingerprint[0]} ${fingerprint[1]} ${content[page] ?? page}`;
    let kind = kinds.get(key);
    if (kind === undefined) {
      kinds.set(key, (kind = first.push(page) - 1));
      times.push(0);
    }
    times[kind]++;
    return kind;
  });
  const alikeOf = new Int32Array(first.length);
  const root = Int32Array.from(first, (_, kind) => kind);
  const find = (kind: number): number => {
    while (root[kind] !== kind) kind = root[kind] = root[root[kind]];
    return kind;
  };
  const keys = first.map((page) => keysOf(fingerprints[page]!, tolerance));
  const tables = tolerance <= 3 ? 4 : 28;
  for (let table = 0; table < tables; table++) {
    const buckets = new Map<number, number[]>();
    keys.forEach((own, kind) => {
      const bucket = buckets.get(own[table]);
      if (bucket) bucket.push(kind);
      else buckets.set(own[table], [kind]);
    });
    for (const bucket of buckets.values())
      for (let i = 1; i < bucket.length; i++)
        for (let j = 0; j < i; j++) {
          const [a, b] = [bucket[i], bucket[j]];
          if (fingerprintDistance(fingerprints[first[a]]!, fingerprints[first[b]]!) > tolerance) continue;
          // A pair meets under several keys and counts under the first.
          if (keys[a].findIndex((key, at) => key === keys[b][at]) !== table) continue;
          alikeOf[a] += times[b];
          alikeOf[b] += times[a];
          root[find(a)] = find(b);
        }
  }
  const sizes = new Map<number, number>();
  const firstOf = new Map<number, number>();
  kindOf.forEach((kind, page) => {
    if (kind < 0 || alikeOf[kind] === 0) return;
    const group = find(kind);
    sizes.set(group, (sizes.get(group) ?? 0) + 1);
    if (!firstOf.has(group)) firstOf.set(group, page);
  });
  const ordered = [...sizes].sort((a, b) => b[1] - a[1] || firstOf.get(a[0])! - firstOf.get(b[0])!);
  const numbers = new Map(ordered.map(([group], i) => [group, i + 1]));
  return {
    alike: kindOf.map((kind) => (kind < 0 ? -1 : alikeOf[kind])),
    group: kindOf.map((kind) => (kind < 0 || alikeOf[kind] === 0 ? -1 : numbers.get(find(kind))!)),
  };
}
