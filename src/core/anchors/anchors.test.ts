import { describe, expect, it } from 'vitest';
import { faultBit, linkFaults } from '../links';
import type { LinkKind } from '../links';
import { addressAt, factAt, pageOf } from '../snapshot';
import { tiny, tinySite } from '../testing/tinySite';
import type { TinyPage } from '../testing/tinySite';
import { isGeneric, isWayfinding, plainWords } from '.';

const snapshot = tinySite({
  '/': {
    worded: [
      ['/trams', 'Trams of the north'],
      ['/trams', 'Read more'],
      ['/trams', 'https://tiny.example/trams'],
      ['/trams', ''],
      ['/trams', 'x'.repeat(101)],
      ['/buses', 'The night fleet'],
      ['/trams', 'Ticket prices'],
      ['/prices', 'Ticket prices'],
    ],
    declared: [['hreflang', '/fr/']],
  },
  '/trams': {
    title: 'Trams',
    worded: [
      ['/buses', 'Buses'],
      ['/', 'Start'],
    ],
  },
  '/buses': { title: 'Night buses', pageNofollow: true, worded: [['/trams', 'Trams']] },
  '/prices': { title: 'Prices of tickets' },
  '/fr/': { title: 'Accueil' },
});

const faultsOf = (from: string, to: string, words: string) => {
  const { links, phrases } = snapshot;
  const page = pageOf(snapshot, tiny(from));
  for (let link = links.offsets[page]; link < links.offsets[page + 1]; link++)
    if (addressAt(snapshot, links.target[link]) === tiny(to) && phrases[links.anchor[link]] === words)
      return linkFaults.filter((_, bit) => (links.faults[link] >> bit) & 1);
  throw new Error('no such link');
};

describe('faults of anchors', () => {
  it.each([
    ['/', '/trams', 'Trams of the north', []],
    ['/', '/trams', 'Read more', ['generic']],
    ['/', '/trams', 'https://tiny.example/trams', ['address']],
    ['/', '/trams', '', ['empty']],
    ['/', '/trams', 'x'.repeat(101), ['overlong', 'off_topic', 'split']],
    ['/', '/buses', 'The night fleet', []],
    ['/', '/trams', 'Ticket prices', ['off_topic', 'conflict', 'split']],
    ['/', '/prices', 'Ticket prices', ['conflict']],
    ['/buses', '/trams', 'Trams', ['nofollow_mix']],
    ['/', '/fr/', '', ['no_return', 'bad_code']],
  ])('from %s to %s: “%.20s”', (from, to, words, faults) => expect(faultsOf(from, to, words)).toEqual(faults));
  it('are told of the target, with how many words lead there', () => {
    const page = pageOf(snapshot, tiny('/prices'));
    expect(factAt(snapshot, 'anchor_faults', page)).toEqual(['conflict']);
    expect(factAt(snapshot, 'anchors', pageOf(snapshot, tiny('/trams')))).toBe(7);
  });
});

it('does not miss a return link of an edition that was never fetched', () => {
  const edition: [LinkKind, string][] = [['hreflang', '/fr/']];
  const faults = (fr: TinyPage) => {
    const site = tinySite({ '/': { declared: edition }, '/fr/': fr });
    return site.links.faults[site.links.offsets[pageOf(site, tiny('/'))]] & faultBit('no_return');
  };
  expect(faults({})).not.toBe(0);
  expect(faults({ unvisitedReason: 'limit', status: null, html: false })).toBe(0);
});

it('knows words that fit any link, in several languages', () => {
  expect(
    ['Read more »', 'En savoir plus', 'Hier klicken', 'LEES MEER'].map((text) => isGeneric(plainWords(text))),
  ).toEqual([true, true, true, true]);
  expect(isGeneric(plainWords('Night buses'))).toBe(false);
  expect(['2', 'Next', '12/2027'].map((text) => isWayfinding(plainWords(text)))).toEqual([true, true, true]);
});
