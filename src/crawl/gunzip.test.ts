import { constants, deflateRawSync, gzipSync } from 'node:zlib';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decodeBody } from './body';
import { gunzipped } from './gunzip';

async function* cut(bytes: Buffer, size: number): AsyncGenerator<Buffer> {
  for (let at = 0; at < bytes.length; at += size) yield bytes.subarray(at, at + size);
}
async function unzip(bytes: Buffer, size = 1000): Promise<{ text: string; failed: boolean }> {
  const given: Buffer[] = [];
  let failed = false;
  try {
    for await (const piece of gunzipped(cut(bytes, size))) given.push(piece);
  } catch (error) {
    failed = true;
    expect(error).toMatchObject({ code: expect.stringMatching(/^Z_/) as string });
  }
  return { text: Buffer.concat(given).toString(), failed };
}
const trams = 'tram '.repeat(50_000);
const squares = Array.from({ length: 50_000 }, (_, i) => i * i).join();
/** A gzip that ends within a block of a type that there is none of (RFC 1951 §3.2.3). */
const broken = Buffer.concat([
  gzipSync('').subarray(0, 10),
  deflateRawSync(squares, { finishFlush: constants.Z_SYNC_FLUSH }),
  Buffer.alloc(100, 0xff),
]);

describe('gzip', () => {
  it('is undone however it is cut, of one member or several', () =>
    fc.assert(
      fc.asyncProperty(
        fc.array(fc.string(), { minLength: 1, maxLength: 4 }),
        fc.integer({ min: 1, max: 50 }),
        async (texts, size) => {
          const members = Buffer.concat(texts.map((text) => gzipSync(text)));
          expect(await unzip(members, size)).toEqual({ text: texts.join(''), failed: false });
        },
      ),
      { numRuns: 50 },
    ));
  it.each([
    ['zeros', Buffer.alloc(20)],
    ['text', Buffer.from('<!-- served by the tram shed -->')],
    ['half a header', Buffer.from([0x1f, 0x8b])],
  ])('with %s behind it gives what it holds', async (_, trailing) => {
    expect(await unzip(Buffer.concat([gzipSync(trams), trailing]))).toEqual({ text: trams, failed: false });
  });
  it('that ends early gives what came', async () => {
    const zipped = gzipSync(squares);
    const { text, failed } = await unzip(zipped.subarray(0, 90_000));
    expect(text.length).toBeGreaterThan(50_000);
    expect(failed).toBe(false);
  });
  it('that is broken within gives what came before', async () => {
    const { text, failed } = await unzip(broken);
    expect(text.length).toBeGreaterThan(400_000);
    expect([squares.startsWith(text), failed]).toEqual([true, true]);
  });
  it('that is none is told so', async () => {
    expect(await unzip(Buffer.from('no gzip at all'))).toEqual({ text: '', failed: true });
    expect(await unzip(Buffer.alloc(0))).toEqual({ text: '', failed: true });
  });
});

describe('a body of a page', () => {
  const decode = (bytes: Buffer, limit = 1 << 20) => decodeBody({ bytes, truncated: false }, 'gzip', limit);
  it('with bytes behind its gzip is whole', async () => {
    const { bytes, truncated } = await decode(Buffer.concat([gzipSync(trams), Buffer.from('behind')]));
    expect([bytes.toString(), truncated]).toEqual([trams, false]);
  });
  it('whose gzip breaks is kept as far as it goes, and says so', async () => {
    const { bytes, truncated } = await decode(broken);
    expect(bytes.length).toBeGreaterThan(400_000);
    expect([squares.startsWith(bytes.toString()), truncated]).toEqual([true, true]);
  });
  it('whose gzip is none is malformed', () =>
    expect(decode(Buffer.from('plain'))).rejects.toMatchObject({ code: 'Z_DATA_ERROR' }));
  it('is cut at the limit, also where bytes follow', async () => {
    const { bytes, truncated } = await decode(Buffer.concat([gzipSync(trams), Buffer.from('behind')]), 100);
    expect([bytes.length, truncated]).toEqual([100, true]);
  });
});
