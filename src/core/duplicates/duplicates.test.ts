import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fingerprintDistance } from '../words';
import { tinySite } from '../testing/tinySite';
import { countEqual, MAX_TOLERANCE, nearDuplicates, variantKey } from '.';

it('counts the others with the same content', () =>
  expect([...countEqual(Uint32Array.of(1, 2, 1, 0, 1))]).toEqual([2, 0, 2, -1, 2]));

describe('near-duplicates', () => {
  type Print = [number, number];
  const flip = ([high, low]: Print, bits: readonly number[]): Print =>
    bits.reduce<Print>(
      ([h, l], bit) => (bit < 32 ? [(h ^ (1 << bit)) >>> 0, l] : [h, (l ^ (1 << (bit - 32))) >>> 0]),
      [high, low],
    );
  const base: Print = [0x9e3779b9, 0x85ebca6b];
  const families = fc.array(
    fc.record({ family: fc.nat(2), bits: fc.uniqueArray(fc.nat(63), { maxLength: 4 }), content: fc.nat(4) }),
    { maxLength: 25 },
  );
  const codes = (texts: readonly string[]) => Uint32Array.from(texts, (text) => 1 + texts.indexOf(text));
  it('equal a slow comparison of every pair', () =>
    fc.assert(
      fc.property(families, fc.nat(MAX_TOLERANCE), (pages, tolerance) => {
        const prints = pages.map(({ family, bits }) => flip([base[0] + family * 0x01234567, base[1]], bits));
        const content = pages.map(({ content }, i) => `${prints[i].join()} ${content}`);
        const fingerprints = Uint32Array.from(prints.flat());
        const { alike, group } = nearDuplicates({ fingerprints, content: codes(content) }, tolerance);
        prints.forEach((print, i) => {
          const near = prints.map(
            (other, j) => i !== j && content[i] !== content[j] && fingerprintDistance(print, other) <= tolerance,
          );
          expect(alike[i]).toBe(near.filter(Boolean).length);
          near.forEach((is, j) => is && expect(group[i]).toBe(group[j]));
          expect(group[i] > 0).toBe(alike[i] > 0);
        });
      }),
    ));
  it('leave out pages that say too little', () =>
    expect(nearDuplicates({ fingerprints: Uint32Array.of(0, 0, ...base), content: Uint32Array.of(0, 1) }, 3)).toEqual({
      alike: Int32Array.from([-1, 0]),
      group: Int32Array.from([-1, -1]),
    }));
  it('of one fingerprint and 200,000 different bodies are counted without comparing each pair', () => {
    const count = 200_000;
    const fingerprints = new Uint32Array(2 * count).fill(7);
    const content = Uint32Array.from({ length: count }, (_, page) => page + 1);
    const { alike, group } = nearDuplicates({ fingerprints, content }, 3);
    expect([alike[0], alike[count - 1], group[count - 1]]).toEqual([count - 1, count - 1, 1]);
  });
  it('of very many fingerprints in one bucket end, with counts that are lower bounds', () => {
    const count = 60_000;
    // All of them agree in the upper half, and so meet in two of four tables.
    const fingerprints = Uint32Array.from({ length: 2 * count }, (_, at) => (at & 1 ? Math.imul(at, 0x9e3779b1) : 7));
    const content = Uint32Array.from({ length: count }, (_, page) => page + 1);
    const { alike } = nearDuplicates({ fingerprints, content }, 3);
    expect(alike.every((n) => n >= 0 && n < count)).toBe(true);
  });
});

describe('variants', () => {
  it.each([
    ['http://www.a.example/Shop/', 'https://a.example/shop'],
    ['https://a.example/index.html', 'https://a.example/'],
    ['https://a.example/x?b=1&a=2', 'https://a.example/x?a=2&b=1'],
  ])('%s is one of %s', (a, b) => expect(variantKey(a)).toBe(variantKey(b)));
  it('are told apart by path and parameters', () =>
    expect(variantKey('https://a.example/x?p=1')).not.toBe(variantKey('https://a.example/x?p=2')));
  it('are settled when one of them stands', () => {
    const old = { status: 301, html: false, redirectTo: 'https://tiny.example/x' };
    const { column } = tinySite({
      'http://tiny.example/x': old,
      'http://tiny.example/y': {},
      '/X/': {},
      '/y': {},
      '/z': { contentHash: 'same' },
      '/z?page=2': { contentHash: 'other' },
      '/z?utm=1': { contentHash: 'same' },
    });
    expect([...column('variants')]).toEqual([1, 1, 1, 1, 1, 0, 1]);
    expect([...column('variants_unsettled')]).toEqual([0, 1, 0, 1, 1, 0, 1]);
  });
  it('are the addresses of one key, whatever they are', () => {
    const host = fc.constantFrom('http://tiny.example', 'https://tiny.example', 'https://www.tiny.example');
    const folder = fc.constantFrom(
      '',
      '/',
      '/Shop',
      '/shop/',
      '/shop//',
      '/SHOP/index.html',
      '/default.aspx',
      '/shop/a',
    );
    const query = fc.constantFrom('', '?', '?a=1&b=2', '?b=2&A=1', '?b=2');
    const addresses = fc.uniqueArray(fc.tuple(host, folder, query).map((parts) => new URL(parts.join('')).href));
    fc.assert(
      fc.property(addresses, (known) => {
        const { column } = tinySite(Object.fromEntries(known.map((address) => [address, {}])));
        const { values, codes } = column('url');
        const keys = Array.from(codes, (code) => variantKey(values[code]));
        expect([...column('variants')]).toEqual(keys.map((key) => keys.filter((other) => other === key).length - 1));
      }),
    );
  });
  it('are counted once each, however many ways they are alike', () => {
    const many = Array.from({ length: 300 }, (_, i) => `/list?a=1&b=${i % 2}&${i}`);
    const { column } = tinySite(Object.fromEntries(many.map((path) => [path, { contentHash: 'same' }])));
    expect(new Set(column('variants'))).toEqual(new Set([299]));
  });
});
