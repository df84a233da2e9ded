import { describe, expect, it } from 'vitest';
import { faultBit, linkFaults } from '../links';
import type { LinkKind } from '../links';
import { addressAt, factAt, pageOf } from '../snapshot';
import { tiny, tinySite } from '../testing/tinySite';
import type { TinyPage } from '../testing/tinySite';
import { hostOfText } from './address';
import { countedLanguages, genericIn, isName, isReference, isWayfinding, plainWords } from './words';

type Worded = NonNullable<TinyPage['worded']>[number];
const often = (link: Worded): Worded[] => [link, link, link];

const snapshot = tinySite({
  '/': {
    language: 'en-GB',
    worded: [
      ['/trams', 'Trams of the north'],
      ['/trams', 'Read more'],
      ['/trams', 'En savoir plus'],
      ['/trams', 'https://tiny.example/trams'],
      ['/trams', 'tiny.example/trams'],
      ['/trams', 'tkinter.ttk'],
      ['/trams', 'READ_ONLY'],
      ['/trams', 'Table 9.88'],
      ['/trams', 'up'],
      ['/trams', ''],
      ['/trams', 'x'.repeat(101)],
      ['/trams', 'The horses'],
      ['/trams', 'Ticket prices'],
      ['/trams', 'Timetable', 'nav'],
      ['/buses', 'The night fleet'],
      ['/prices', 'Ticket prices'],
      ['/copy', 'Ticket prices'],
      ['/more', 'More'],
      ['/fr/', 'En savoir plus'],
      ...often(['/depot', 'The depot']),
      ...often(['/depot', 'Where they sleep']),
      ['/depot', 'Kennel'],
      ['/depot', 'Turntable and sheds'],
      ...often(['/prices', 'Fares']),
    ],
    declared: [['hreflang', '/fr/']],
  },
  '/trams': {
    title: 'Trams',
    worded: [
      ['/buses', 'Buses'],
      ['/', 'Start'],
      ['/prices', 'Same'],
      ['/copy', 'Same'],
      ['/prices', 'Both'],
      ['/trams', 'Both'],
      ['/more', 'Both', 'footer'],
    ],
  },
  '/buses': { title: 'Night buses', nofollow: ['/trams'] },
  '/prices': { title: 'Prices of tickets', description: 'All fares', contentHash: 'a'.repeat(32) },
  '/copy': { title: 'Prices of tickets', contentHash: 'a'.repeat(32) },
  '/depot': { title: 'Depot', text: 'A turntable turns the engines.' },
  '/more': { title: 'More | Tiny museum' },
  '/fr/': { title: 'Accueil', language: 'fr', worded: [['/trams', 'En savoir plus']] },
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
  it.each<[string, string, string, string[]]>([
    ['/', '/trams', 'Trams of the north', []],
    // What fits any link, in the language of the page or in English.
    ['/', '/trams', 'Read more', ['generic']],
    ['/', '/trams', 'En savoir plus', []],
    ['/fr/', '/trams', 'En savoir plus', ['generic']],
    // The page has this name.
    ['/', '/more', 'More', []],
    // Addresses, and what only looks like one.
    ['/', '/trams', 'https://tiny.example/trams', ['address']],
    ['/', '/trams', 'tkinter.ttk', []],
    ['/', '/trams', 'READ_ONLY', []],
    ['/', '/trams', 'Table 9.88', []],
    ['/', '/trams', 'up', []],
    ['/', '/trams', '', ['empty']],
    ['/', '/trams', 'x'.repeat(101), ['overlong', 'off_topic']],
    ['/', '/buses', 'The night fleet', []],
    ['/', '/trams', 'The horses', ['off_topic']],
    // Navigation says less than the content of pages, and is not judged by it.
    ['/', '/trams', 'Timetable', []],
    ['/', '/trams', 'Ticket prices', ['off_topic', 'conflict']],
    ['/', '/prices', 'Ticket prices', ['conflict']],
    // The description is about the page, too.
    ['/', '/prices', 'Fares', []],
    // Two pages of equal content are one, and links around the content are no promise.
    ['/trams', '/copy', 'Same', ['off_topic']],
    ['/trams', '/prices', 'Both', ['off_topic']],
    // Names that are often used for one page and have nothing in common.
    ['/', '/depot', 'The depot', []],
    ['/', '/depot', 'Where they sleep', ['off_topic', 'split']],
    ['/', '/depot', 'Kennel', ['off_topic']],
    // The text of the target has one of the words.
    ['/', '/depot', 'Turntable and sheds', []],
    ['/buses', '/trams', '', ['empty', 'nofollow_mix']],
    ['/', '/fr/', '', ['no_return', 'bad_code']],
  ])('from %s to %s: “%.20s”', (from, to, words, faults) => expect(faultsOf(from, to, words)).toEqual(faults));
  it('are told of the target, with how many words lead there', () => {
    const page = pageOf(snapshot, tiny('/prices'));
    expect(factAt(snapshot, 'anchor_faults', page)).toEqual(['off_topic', 'conflict']);
    expect(factAt(snapshot, 'anchors', pageOf(snapshot, tiny('/buses')))).toBe(2);
  });
});

it('judges the words of links to a part of a page by all that the page says', () => {
  const site = tinySite({
    '/': { fragments: ['Horses', 'Stable'].map((words): [string, string, string] => ['/trams', words, 'past']) },
    '/trams': { title: 'Trams', text: 'Before the trams the stable was full of horses.' },
    '/buses': { fragments: [['/trams', 'Zeppelins', 'past']] },
  });
  const faults = (from: string) => [
    ...site.links.faults.subarray(...[0, 1].map((i) => site.links.offsets[pageOf(site, tiny(from)) + i])),
  ];
  expect(faults('/')).toEqual([0, 0]);
  expect(faults('/buses')).toEqual([faultBit('off_topic')]);
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

describe('the same words for different pages', () => {
  const conflicts = (pages: Record<string, TinyPage>) => {
    const site = tinySite({ '/': {}, ...pages });
    return [...site.links.faults].filter((faults) => faults & faultBit('conflict')).length;
  };
  const drawing = (to: string): Worded => [to, 'Drawing'];

  it('are a conflict within one host and language, between pages that may be indexed', () => {
    const from = { '/a': { worded: [drawing('/x')] }, '/b': { worded: [drawing('/y')] } };
    expect(conflicts({ ...from, '/x': {}, '/y': {} })).toBe(2);
    expect(conflicts({ ...from, '/x': { language: 'en' }, '/y': { language: 'fr' } })).toBe(0);
    expect(conflicts({ ...from, '/x': {}, '/y': { noindex: true } })).toBe(0);
    const other = { '/a': { worded: [drawing('/x')] }, '/b': { worded: [drawing('https://else.example/y')] } };
    expect(conflicts({ ...other, '/x': {}, 'https://else.example/y': {} })).toBe(0);
  });
  it('are none for what each page has of its own', () => {
    const names = ['a', 'b', 'c', 'd', 'e', 'f'];
    const own = Object.fromEntries(
      names.flatMap((name): [string, TinyPage][] => [
        [`/${name}`, { worded: [[`/members-of-${name}`, 'List of all members']] }],
        [`/members-of-${name}`, {}],
      ]),
    );
    expect(conflicts(own)).toBe(0);
    const below = Object.fromEntries(
      ['a', 'b'].flatMap((name): [string, TinyPage][] => [
        [`/${name}/`, { worded: [drawing(`/${name}/drawing`)] }],
        [`/${name}/drawing`, {}],
      ]),
    );
    expect(conflicts(below)).toBe(0);
  });
});

describe('words', () => {
  it('that fit any link are known in several languages', () => {
    const known = ['Read more »', 'En savoir plus', 'Hier klicken', 'LEES MEER'].map((text) =>
      genericIn(plainWords(text)),
    );
    expect(known.every((bits) => bits > 0)).toBe(true);
    expect(genericIn(plainWords('Night buses'))).toBe(0);
    const french = genericIn('en savoir plus');
    expect(['fr-CA', 'en', 'ja', null].map((code) => (countedLanguages(code) & french) !== 0)).toEqual([
      true,
      false,
      false,
      true,
    ]);
    expect(['fr', 'ja'].every((code) => countedLanguages(code) & genericIn('read more'))).toBe(true);
  });
  it.each(['2', 'Next', '12/2027', 'Back to top', 'Sommaire'])('“%s” shows the way', (text) =>
    expect(isWayfinding(plainWords(text))).toBe(true),
  );
  it.each(['Section 43.12', 'Table 9.88', '§ 7', 'Chapter IV', 'Figures 3', 'Abb. 12', 'RFC 9309', '#12'])(
    '“%s” refers to a numbered part',
    (text) => expect(isReference(text.toLowerCase())).toBe(true),
  );
  it.each(['Table of fares', 'Part of the fleet', 'Section', 'Trams 1950'])('“%s” does not', (text) =>
    expect(isReference(text.toLowerCase())).toBe(false),
  );
  it.each([
    'open()',
    'std::vector',
    'tkinter.ttk',
    'maxAge',
    '--depth',
    '-x',
    'CONTINUE',
    'READ_ONLY',
    'setup.cfg',
    'operator=',
    'a/b',
    'read(fd, buf)',
  ])('“%s” is a name of code', (text) => expect(isName(text)).toBe(true));
  it.each([
    'Trams',
    'open',
    'Night buses (summer)',
    'UK',
    'well-known',
    "driver's",
    'Straße',
    'Read more.',
    'e.g. trams',
  ])('“%s” is none', (text) => expect(isName(text)).toBe(false));
  it.each([
    ['https://www.museum.example/x?y', 'museum.example'],
    ['www.larkfield.org', 'larkfield.org'],
    ['larkfield.co.uk/visit', 'larkfield.co.uk'],
    ['java.beans', null],
    ['index.html', null],
    ['see larkfield.org', null],
    ['http://', null],
  ])('“%s” is the address of %s', (text, host) => expect(hostOfText(text)).toBe(host));
});
