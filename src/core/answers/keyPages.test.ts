import { expect, it } from 'vitest';
import { tiny, tinySite } from '../testing/tinySite';
import { viewOf } from '../view';
import { keyPagesAnswer } from './keyPages';

const site = tinySite({
  '/': { links: ['/a'], inText: [['/b', 'buses']] },
  '/a': { links: ['/deep'], inText: [['/b', 'buses']] },
  '/b': { inText: [['/a', 'trams']] },
  '/deep': { links: ['/deeper'], noindex: true },
  '/deeper': {},
  '/lost': {},
});
const answer = (...paths: string[]) =>
  keyPagesAnswer(viewOf(site, [], paths.map(tiny)), { deepClicks: 2 })
    .map(({ text }) => text)
    .join('');

it('says what is wrong with key pages, and nothing where there are none', () => {
  expect(answer()).toBe('');
  expect(answer('/unknown')).toBe('');
  expect(answer('/b')).toBe(
    '1 key page: all may be indexed, are within 2 clicks, and are linked from the text of several pages.',
  );
  expect(answer('/a', '/b', '/deep', '/deeper', '/lost')).toBe(
    'Of 5 key pages, 1 may not be indexed, 1 has no route, 1 is deeper than 2 clicks, 3 have no link from running text and 1 has one.',
  );
});
