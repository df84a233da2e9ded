/** Numbers of addresses, packed: ascending, as the differences between them, in LEB128 varints. */
export function packNumbers(numbers: readonly number[]): Uint8Array {
  const out = new Uint8Array(numbers.length * 8);
  let at = 0;
  let last = 0;
  for (const number of [...numbers].sort((a, b) => a - b)) {
    let left = number - last;
    last = number;
    while (left > 127) {
      out[at++] = (left % 128) | 128;
      left = Math.floor(left / 128);
    }
    out[at++] = left;
  }
  return out.slice(0, at);
}

/** The reverse of {@link packNumbers}. @throws Error when the bytes end within a number */
export function unpackNumbers(bytes: Uint8Array): number[] {
  const numbers: number[] = [];
  let last = 0;
  for (let at = 0; at < bytes.length;) {
    let factor = 1;
    for (;;) {
      if (at >= bytes.length) throw new Error('Packed numbers end too early.');
      const byte = bytes[at++];
      last += (byte & 127) * factor;
      if (byte < 128) break;
      factor *= 128;
    }
    numbers.push(last);
  }
  return numbers;
}
