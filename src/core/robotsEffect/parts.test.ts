import { describe, expect, it } from 'vitest';
import { analyse } from '../analysis';
import { decodeSnapshot, encodeSnapshot } from '../snapshot';
import { tinyBase, tinySettings } from '../testing/tinySite';
import { effectParts, judgingParts, robotsBench, robotsEffect } from '.';

const origin = 'https://tiny.example';
const file = { origin, status: 200, fault: null, body: '', answer: null };
const whole = encodeSnapshot(
  analyse(
    tinyBase(
      { '/': { links: ['/shop/a', '/visit'] }, '/shop/a': { links: ['/shop/b'] }, '/shop/b': {}, '/visit': {} },
      [`${origin}/shop/b`],
      { files: { robots: [file], sitemaps: [] } },
    ),
    tinySettings,
  ),
);
const read = (names: readonly string[]) =>
  decodeSnapshot(new Map([...whole].filter(([name]) => names.includes(name))), whole.keys());
const text = 'User-agent: *\nDisallow: /shop/a\nAllow: /visit';

describe('the parts that are handed to a worker', () => {
  it('are enough to judge a draft', () => {
    const bench = robotsBench(read(judgingParts), origin, '');
    expect(bench.judge(text, 'any')).toEqual({
      known: 4,
      closed: { count: 1, addresses: [`${origin}/shop/a`] },
      opened: { count: 0, addresses: [] },
      still: 0,
      indexableClosed: 1,
      listedClosed: 0,
      sections: [{ section: 'shop', closed: 1, opened: 0 }],
      decidedBefore: [],
      decidedAfter: [
        [2, 1],
        [3, 1],
      ],
    });
    expect(bench.decidedBy(text, 'any', 3)).toEqual({ count: 1, addresses: [`${origin}/visit`] });
    expect(bench.compose([`${origin}/shop/a`, `${origin}/shop/b`])).toEqual([
      { of: 'picked', addresses: 2, rules: [{ path: '/shop/', closes: 2, alsoCloses: [] }] },
    ]);
  });
  it('are enough to work out what a draft costs', () => {
    const snapshot = read([...judgingParts, ...effectParts]);
    const { counts } = robotsEffect(snapshot, { origin, text, token: 'any' }, tinySettings);
    expect(counts).toMatchObject({ closed: 1, indexable_lost: 1, routes_lost: 1 });
  });
});
