import { describe, expect, it } from 'vitest';
import type { Link } from '$core/links';
import { scopeOf } from '$core/scope';
import { settingsSchema } from '$core/settings';
import { ASIDE_RANK, EXTERNAL_RANK, RESOURCE_RANK, UNLINKED_RANK } from '$server/index';
import { discoverer } from './discoveries';

const start = 'https://museum.example/';
const link = (path: string, given: Partial<Link> = {}): Link => ({
  kind: 'click',
  element: 'a',
  target: new URL(path, start).href,
  anchor: '',
  rel: '',
  placement: 'none',
  above: '',
  fragment: '',
  line: 1,
  column: 1,
  ...given,
});
function discovering(given: object = {}, selectionOnly = false) {
  const settings = settingsSchema.parse({ start, ...given });
  const of = discoverer(scopeOf(settings), settings, selectionOnly);
  return (links: Link[], turn = { rank: 2, hops: 1 }, nofollow = false) =>
    of(turn, links, nofollow).map(({ address, rank, hops }) => [address.replace(start, '/'), rank, hops]);
}

describe('what a page leads to', () => {
  it.each<[string, Link, object, [number, number] | null]>([
    ['a click is one further', link('/a'), {}, [3, 0]],
    ['a redirect costs no click', link('/a', { kind: 'redirect' }), {}, [2, 2]],
    ['nofollow stays aside', link('/a', { rel: 'ugc' }), { follow: { nofollow: false } }, [ASIDE_RANK, 0]],
    ['what the patterns leave out stays aside', link('/a'), { exclude: ['/a'] }, [ASIDE_RANK, 0]],
    ['a canonical is known without a way', link('/a', { kind: 'canonical' }), {}, [UNLINKED_RANK, 0]],
    ['a feed is not a page', link('/feed', { kind: 'alternate' }), {}, null],
    ['an outside address is recorded only', link('https://x.example/'), {}, null],
    ['or checked', link('https://x.example/'), { external: 'check' }, [EXTERNAL_RANK, 0]],
    ['so is an image', link('/a.png', { kind: 'image' }), { check: { image: true } }, [RESOURCE_RANK, 0]],
    ['what is no URL leads nowhere', link('/a', { target: 'http://[bad', malformed: true }), {}, null],
  ])('%s', (_, one, given, place) => {
    const found = discovering(given)([one]);
    expect(found).toEqual(place ? [[one.target.replace(start, '/'), ...place]] : []);
  });
  it('counts once, by its best link', () => {
    const follow = { nofollow: false };
    const found = discovering({ follow })([
      link('/a', { rel: 'nofollow' }),
      link('/a'),
      link('/a', { kind: 'canonical' }),
    ]);
    expect(found).toEqual([['/a', 3, 0]]);
  });
  it('is told again only when it comes nearer', () => {
    const found = discovering();
    expect(found([link('/a'), link('/b')], { rank: 4, hops: 0 })).toHaveLength(2);
    expect(found([link('/a'), link('/b')], { rank: 4, hops: 0 })).toEqual([]);
    expect(found([link('/a')], { rank: 2, hops: 0 })).toEqual([['/a', 3, 0]]);
    expect(found([link('/a', { kind: 'redirect' })], { rank: 2, hops: 0 })).toEqual([['/a', 2, 1]]);
    expect(found([link('/a', { kind: 'redirect' })], { rank: 2, hops: 0 })).toEqual([]);
  });
  it('stays aside when only a selection is fetched again', () =>
    expect(discovering({}, true)([link('/a'), link('/b', { kind: 'canonical' })])).toEqual([
      ['/a', ASIDE_RANK, 0],
      ['/b', ASIDE_RANK, 0],
    ]));
});
