/**
 * Fingerprints of 64 bits, whose distance in bits grows with the difference of two texts (Charikar, "Similarity
 * estimation techniques from rounding algorithms", 2002), over runs of three words.
 */

/** Words in a row that make one feature. */
const SHINGLE = 3;

/** The finalizer of MurmurHash3, which spreads every bit over all others. */
function mix(value: number): number {
  value = Math.imul(value ^ (value >>> 16), 0x85ebca6b);
  value = Math.imul(value ^ (value >>> 13), 0xc2b2ae35);
  return (value ^ (value >>> 16)) >>> 0;
}

/** Three words in a row, or those of a text that has fewer. */
function featureAt(hashes: Uint32Array, from: number): number {
  let value = 0;
  for (let i = from; i < from + SHINGLE && i < hashes.length; i++) value = (Math.imul(value, 31) + hashes[i]) | 0;
  return value;
}

/** The fingerprint of a text with some words. @param hashes a number for each of its words */
export function fingerprintOf(hashes: Uint32Array): [number, number] {
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
