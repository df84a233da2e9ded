import { expect, it } from 'vitest';
import { lostShare, wordingsOf } from '.';
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
