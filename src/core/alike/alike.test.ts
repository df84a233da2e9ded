import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fingerprintDistance } from '../html';
import { countEqual, findVariants, MAX_TOLERANCE, nearDuplicates, variantKey } from '.';

it('counts the others with the same content', () =>
  expect([...countEqual(['a', 'b', 'a', null, 'a'])]).toEqual([2, 0, 2, -1, 2]));

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
  it('equal a slow comparison of every pair', () =>
    fc.assert(
      fc.property(families, fc.nat(MAX_TOLERANCE), (pages, tolerance) => {
        const prints = pages.map(({ family, bits }) => flip([base[0] + family * 0x01234567, base[1]], bits));
        const content = pages.map(({ content }, i) => `${prints[i].join()} ${content}`);
        const { alike, group } = nearDuplicates(prints, content, tolerance);
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
    expect(nearDuplicates([null, base], [null, 'a'], 3)).toEqual({
      alike: Int32Array.from([-1, 0]),
      group: Int32Array.from([-1, -1]),
    }));
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
    const page = (address: string, stands: boolean, content: string | null = null) => ({ address, content, stands });
    const { variants, unsettled } = findVariants([
      page('https://a.example/x', true),
      page('http://a.example/x', false),
      page('https://a.example/y', true),
      page('https://a.example/Y/', true),
      page('https://a.example/z', true, 'same'),
      page('https://a.example/z?utm=1', true, 'same'),
      page('https://a.example/z?page=2', true, 'other'),
    ]);
    expect([...variants]).toEqual([1, 1, 1, 1, 1, 1, 0]);
    expect([...unsettled]).toEqual([0, 0, 1, 1, 1, 1, 0]);
  });
});
