/** The encodings in which lists are exported. */
export type ListEncoding = 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252';

/**
 * Tells the encoding of a file by its beginning: by its byte order mark, by where the zero bytes of UTF-16 are, and by
 * whether it is well-formed UTF-8.
 * @param end whether `bytes` is all of the file; else a character that is cut at its end is no fault
 */
export function detectEncoding(bytes: Uint8Array, end = false): ListEncoding {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le';
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be';
  const sample = bytes.subarray(0, 2000);
  let [even, odd] = [0, 0];
  sample.forEach((byte, i) => {
    if (byte !== 0) return;
    if (i % 2) odd++;
    else even++;
  });
  if (odd > sample.length / 5 && even === 0) return 'utf-16le';
  if (even > sample.length / 5 && odd === 0) return 'utf-16be';
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes, { stream: !end });
    return 'utf-8';
  } catch {
    return 'windows-1252';
  }
}
