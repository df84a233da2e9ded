/** What the words of a page's main content say about it: how many, and a fingerprint to find pages like it. */

/** Letters and digits with the apostrophes and hyphens within; each sign of a script without spaces counts by itself. */
const word = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]|[\p{L}\p{M}\p{N}]+(?:['’-][\p{L}\p{M}\p{N}]+)*/gu;

/** The same for texts of ASCII only, which are told many times faster. */
const asciiWord = /[a-z0-9]+(?:['-][a-z0-9]+)*/gi;
// eslint-disable-next-line no-control-regex -- the test is for ASCII, control characters included
const ascii = /^[\x00-\x7f]*$/;

export const wordsOf = (text: string): string[] => text.match(ascii.test(text) ? asciiWord : word) ?? [];

/** Words in a row that make one feature. */
const SHINGLE = 3;

const number = /^\p{N}+$/u;

function hash(text: string): number {
  let value = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) value = Math.imul(value ^ text.charCodeAt(i), 0x01000193);
  return value >>> 0;
}

/** The finalizer of MurmurHash3, which spreads every bit over all others. */
function mix(value: number): number {
  value = Math.imul(value ^ (value >>> 16), 0x85ebca6b);
  value = Math.imul(value ^ (value >>> 13), 0xc2b2ae35);
  return (value ^ (value >>> 16)) >>> 0;
}

/**
 * A 64-bit fingerprint whose distance in bits grows with the difference of two texts (Charikar, "Similarity estimation
 * techniques from rounding algorithms", 2002), over runs of three words. Numbers count as equal, so that pages that
 * differ in dates or prices only are found alike.
 * @returns high and low 32 bits; null for a text without words
 */
export function fingerprintOf(words: readonly string[]): [number, number] | null {
  if (words.length === 0) return null;
  const known = new Map<string, number>();
  const hashes = words.map((one) => {
    let value = known.get(one);
    if (value === undefined) known.set(one, (value = hash(number.test(one) ? '0' : one.toLowerCase())));
    return value;
  });
  // How often each byte value occurs at each of the eight places: its bits are counted once, at the end.
  const counts = new Uint32Array(8 * 256);
  const features = Math.max(1, hashes.length - SHINGLE + 1);
  for (let i = 0; i < features; i++) {
    let value = 0;
    for (let j = i; j < Math.min(i + SHINGLE, hashes.length); j++) value = mix(Math.imul(value, 31) + hashes[j]);
    const other = mix(value ^ 0x9e3779b9);
    for (let byte = 0; byte < 4; byte++) {
      counts[byte * 256 + ((value >>> (8 * byte)) & 255)]++;
      counts[(byte + 4) * 256 + ((other >>> (8 * byte)) & 255)]++;
    }
  }
  return [majority(counts.subarray(0, 1024), features), majority(counts.subarray(1024), features)];
}

/** The bits that are set in more than half of what was counted, by byte values at four places. */
function majority(counts: Uint32Array, features: number): number {
  let bits = 0;
  for (let bit = 0; bit < 32; bit++) {
    const place = (bit >>> 3) * 256;
    let set = 0;
    for (let value = 0; value < 256; value++) if ((value >>> (bit & 7)) & 1) set += counts[place + value];
    if (2 * set > features) bits |= 1 << bit;
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
