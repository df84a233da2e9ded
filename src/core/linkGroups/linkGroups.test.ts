import { expect, it } from 'vitest';
import { groupByAnchor, groupByEdit } from '.';
import type { TinyPage } from '../testing/tinySite';
import { tinySite } from '../testing/tinySite';

type Worded = NonNullable<TinyPage['worded']>;
const menu: Worded = [
  ['/visit', 'Plan a visit', 'nav'],
  ['/shop', 'Shop', 'nav'],
];
const site = tinySite({
  '/': { worded: [...menu, ['/visit', 'Plan a visit'], ['/shop', 'Visit the shop']] },
  '/shop': { worded: menu },
  '/visit': { worded: [...menu, ['/shop', 'Shop']], declared: [['canonical', '/visit']] },
});
const { links } = site;
const all = [...links.target.keys()];

/** What each group holds, in words: where its links stand and what they say. */
const told = ({ count, of }: ReturnType<typeof groupByEdit>) =>
  Array.from({ length: count }, (_, group) => all.filter((link) => of[link] === group)).map((members) => ({
    words: site.phrases[links.anchor[members[0]]],
    links: members.length,
  }));

it('takes a menu on three pages for one edit a link, and what stands elsewhere for others', () => {
  expect(told(groupByEdit(site, all))).toEqual([
    { words: 'Plan a visit', links: 3 },
    { words: 'Shop', links: 3 },
    { words: 'Plan a visit', links: 1 },
    { words: 'Visit the shop', links: 1 },
    { words: 'Shop', links: 1 },
    { words: '', links: 1 },
  ]);
});

it('takes the same words to the same page for one anchor, wherever they stand', () => {
  expect(told(groupByAnchor(site, all))).toEqual([
    { words: 'Plan a visit', links: 4 },
    { words: 'Shop', links: 4 },
    { words: 'Visit the shop', links: 1 },
    { words: '', links: 1 },
  ]);
});

it('groups only the links that are chosen', () => {
  const chosen = all.filter((link) => site.phrases[links.anchor[link]] === 'Shop').slice(1);
  const { count, first, of } = groupByEdit(site, chosen);
  expect([count, [...of]]).toEqual([2, [0, 0, 1]]);
  expect(first).toEqual([chosen[0], chosen[2]]);
});
