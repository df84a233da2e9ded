import { describe, expect, it } from 'vitest';
import { beginsAsZstd, largestWindow, zstdDecoder } from '.';

const hex = (text: string) => Buffer.from(text.replaceAll(' ', ''), 'hex');
/** One frame: head, a raw block `tram`. */
const tram = hex('28b52ffd 20 04 210000 7472616d');
const decode = (...pieces: Uint8Array[]) => {
  const read = zstdDecoder();
  return Buffer.concat([...pieces.flatMap((piece) => [...read(piece)]), ...read(null)]).toString();
};

describe('Zstandard', () => {
  it('is told by how it begins', () => {
    expect(beginsAsZstd(tram)).toBe(true);
    expect(beginsAsZstd(hex('1f8b0800'))).toBe(false);
    expect(beginsAsZstd(hex('28b5'))).toBe(false);
  });
  it('is undone in pieces of any size', () => {
    expect(decode(tram)).toBe('tram');
    expect(decode(...Array.from(tram, (byte) => Uint8Array.of(byte)))).toBe('tram');
  });
  it('holds nothing for blocks of nothing, however many', () => {
    const nothing = Buffer.concat([hex('28b52ffd 20 00'), Buffer.alloc(3 * 1_000_000), hex('010000')]);
    const read = zstdDecoder();
    expect([...read(nothing), ...read(null)]).toEqual([]);
  });
  it('that is broken is told by a code', () => {
    expect(() => decode(hex('28b52ffd 28'))).toThrow(expect.objectContaining({ code: 'Z_DATA_ERROR' }));
    expect(() => decode(hex('00112233 4455'))).toThrow(expect.objectContaining({ code: 'Z_DATA_ERROR' }));
  });
});

describe('the window of Zstandard', () => {
  it.each([
    ['of a frame with its content in one segment, of 4 bytes', tram, 4],
    ['of 300 bytes, told in two, of which 256 are left out', hex('28b52ffd 60 2c00 010000'), 300],
    ['of a frame with a descriptor: 2^(10 + 17) and 3/8 more', hex('28b52ffd 00 8b 010000'), 2 ** 27 * 1.375],
    ['of a frame behind one that is passed over', Buffer.concat([hex('5a2a4d18 02000000 ffff'), tram]), 4],
    ['of what is no Zstandard', hex('1f8b0800000000000000'), 0],
  ])('%s', (_, bytes, window) => expect(largestWindow(bytes)).toBe(window));
  it('is the largest of all frames, behind any kinds of blocks and a checksum', () => {
    // A run of 1,000 bytes, then a raw block, then four bytes of checksum; then a frame with a window of 8 MiB.
    const first = hex('28b52ffd 04 00 421f00 61 210000 7472616d 00000000');
    expect(largestWindow(Buffer.concat([first, hex('28b52ffd 00 68 010000')]))).toBe(2 ** 23);
  });
});
