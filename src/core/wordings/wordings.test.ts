import { expect, it } from 'vitest';
import { lostShare, saidOn, sectionWords, sharedWords, wordingsOf } from '.';
import { pageOf } from '../snapshot';
import { htmlSite } from '../testing/htmlSite';
import { tiny } from '../testing/tinySite';

const page = (title: string, links: string) =>
  `<html lang="en"><title>${title}</title><nav><a href="/depot">Depots</a></nav><main><h1>${title}</h1><p>${links}</p></main>`;
const { view } = htmlSite({
  '/': page(
    'Museum',
    'See <a href="/depot">the Lantern Lane depot</a> or <a href="/tickets#family">family tickets</a>.',
  ),
  '/trams': page('Trams', 'More <a href="/depot">here</a>, and <a href="/depot">prices of tickets</a>.'),
  '/tickets': page('Tickets and prices', 'Ask at <a href="/depot">the Lantern Lane depot</a>.'),
  '/depot': page('Lantern Lane depot', 'Of itself <a href="/depot">depot</a> it says nothing.'),
});
const wordings = wordingsOf(view);
const of = (path: string) => wordings.get(pageOf(view, tiny(path)))!;
const find = (anchor: string) => of('/depot').find((one) => one.anchor === anchor)!;

it('wordings are counted by target, with where they stand', () => {
  expect(
    of('/depot').map(({ anchor, occurrences, pages, mainContent, followed }) => [
      anchor,
      occurrences,
      pages,
      mainContent,
      followed,
    ]),
  ).toEqual([
    ['Depots', 3, 3, 0, 3],
    ['the Lantern Lane depot', 2, 2, 2, 2],
    ['here', 1, 1, 1, 1],
    ['prices of tickets', 1, 1, 1, 1],
  ]);
  expect(of('/tickets').map(({ anchor, fragment }) => [anchor, fragment])).toEqual([['family tickets', 'family']]);
});
it('words fit a page as far as its names have them, and another page may fit better', () => {
  expect(find('the Lantern Lane depot')).toMatchObject({ fit: 1, better: -1 });
  expect(find('prices of tickets').fit).toBeLessThan(0.3);
  expect(find('prices of tickets').better).toBe(pageOf(view, tiny('/tickets')));
  expect(of('/tickets')[0]).toMatchObject({ fit: -1, better: -1 });
});
it('share is lost under faulty words', () => {
  expect(find('here').faults).toContain('generic');
  expect(lostShare(of('/depot'))).toBeCloseTo(
    find('here').share + (find('prices of tickets').faults.length ? find('prices of tickets').share : 0),
  );
});
it('words lead to pages, those that lead to most first', () => {
  const shared = sharedWords(wordings);
  expect(shared[0]).toMatchObject({ targets: 1, occurrences: 3, anchor: 'Depots' });
  const two = sharedWords(
    new Map([
      [0, [{ ...of('/depot')[0], target: 0 }]],
      [1, [{ ...of('/depot')[0], target: 1, anchor: 'DEPOTS', occurrences: 1 }]],
    ]),
  );
  expect(two).toMatchObject([{ anchor: 'Depots', targets: 2, occurrences: 4 }]);
});
it('a page says words to others', () => {
  const said = saidOn(view, wordings, pageOf(view, tiny('/trams')));
  expect(
    said.map(({ anchor, target, occurrences, mainContent }) => [anchor, target, occurrences, mainContent]),
  ).toEqual(
    ['Depots', 'here', 'prices of tickets'].map((anchor, i) => [anchor, pageOf(view, tiny('/depot')), 1, i && 1]),
  );
  expect(said[2].better).toBe(pageOf(view, tiny('/tickets')));
});
it('a section says words to another', () => {
  const site = htmlSite({
    '/': '<main>Home</main>',
    '/learn/a': page('A', 'See <a href="/visit/x">prices</a>, <a href="/visit/y">prices</a>.'),
    '/learn/b': page('B', 'See <a href="/visit/x">tickets</a> and <a href="/learn/a">A</a>.'),
    '/visit/x': page('X', 'Nothing.'),
    '/visit/y': page('Y', 'Nothing.'),
  });
  expect(sectionWords(site.view, 1)).toEqual([
    { from: 'learn', to: 'visit', links: 3, words: [['prices', 2]] },
    { from: 'learn', to: 'learn', links: 1, words: [['A', 1]] },
  ]);
});
