/**
 * Numbers of addresses as earlier versions packed them: ascending, as the differences between them, in LEB128 varints.
 * @throws Error when the bytes end within a number
 */
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
