import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boundedMap, sizedCache } from './caches';

describe('a cache bounded in bytes', () => {
  const cacheOf = (most: number) => sizedCache<string>(most, ({ length }) => length);
  it('forgets what was used longest ago', () => {
    const cache = cacheOf(6);
    cache.set('a', 'xx');
    cache.set('b', 'xx');
    cache.set('c', 'xx');
    cache.get('a');
    cache.set('d', 'xx');
    expect(['a', 'b', 'c', 'd'].filter((key) => cache.get(key) !== undefined)).toEqual(['a', 'c', 'd']);
  });
  it('keeps the newest, though it alone is too large', () => {
    const cache = cacheOf(3);
    cache.set('a', 'xx');
    cache.set('b', 'xxxxx');
    expect([cache.get('a'), cache.get('b'), cache.bytes()]).toEqual([undefined, 'xxxxx', 5]);
  });
  it('knows what it holds, whatever is put in', () =>
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.constantFrom('a', 'b', 'c'), fc.string({ maxLength: 9 }))), (entries) => {
        const cache = cacheOf(12);
        for (const [key, value] of entries) cache.set(key, value);
        const held = ['a', 'b', 'c'].reduce((sum, key) => sum + (cache.get(key)?.length ?? 0), 0);
        expect(cache.bytes()).toBe(held);
        expect(held).toBeLessThanOrEqual(12);
      }),
    ));
});

it('a map bounded in entries forgets the oldest', () => {
  const map = boundedMap<number, string>(2);
  for (const key of [1, 2, 1, 3]) map.set(key, String(key));
  expect([1, 2, 3].map(map.get)).toEqual(['1', undefined, '3']);
});
