import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { evaluate, numbersOf, parseSelection } from '../selection';
import { addressAt } from '../snapshot';
import { htmlSite } from '../testing/htmlSite';
import { tiny, tinySite } from '../testing/tinySite';
import { searchedWords, searchPages, searchTexts, wordsOfText } from '.';

const page = (text: string, around = '') =>
  `<html lang="en"><title>Museum</title><nav>Trolley wire</nav><main><p>${text}</p>${around}</main>`;
const site = htmlSite({
  '/': page('All about trams.'),
  '/wire': page('Two <b>trolley</b>-wires, and <a href="/depot">a depot</a>.'),
  '/apart': page('The trolley', '<p>Wire is sold here.</p>'),
  '/depot': page('Under the TROLLEY WIRE, beside a tramway.'),
  '/ja': '<html lang="ja"><main><p>路面電車の環境変数を見る</p></main>',
});
const held = (text: string) => {
  const parsed = parseSelection(text);
  if (!parsed.ok) return parsed.fault.message;
  return Array.from(numbersOf(evaluate(site.view, parsed.selection)), (at) => addressAt(site.view, at));
};
const pages = (...paths: string[]) => paths.map(tiny);

describe('words in texts', () => {
  it.each([
    ['trolley wire', ['/depot', '/wire']],
    ['TROLLEY-WIRE', ['/depot', '/wire']],
    ['wire trolley', []],
    ['tram', ['/', '/depot']],
    ['ram', []],
    ['a depot', ['/wire']],
    ['環境変数', ['/ja']],
    ['変環', []],
  ])('“%s”', (words, paths) => expect(held(`text has "${words}"`)).toEqual(pages(...paths)));

  it('are asked for together with other tests', () =>
    expect(held('text has "trolley wire" and not links to (path = "/depot")')).toEqual(pages('/depot')));
  it('are refused when there are none, or only a part of them is kept', () => {
    expect(held('text has "…"')).toBe('Expected a word in the quotes.');
    expect(held('text has "20261202"')).toBe('Numbers of more than four digits cannot be found in texts.');
  });
  it('cannot be found before the texts are indexed', () => {
    const parsed = parseSelection('text has "tram"');
    if (!parsed.ok) throw new Error(parsed.fault.message);
    expect(() => evaluate(tinySite({ '/': {} }), parsed.selection)).toThrow(/not indexed yet/);
  });
  it('are found wherever they stand in a page', () => {
    const word = fc.constantFrom('tram', 'depot', 'wire', 'Ōmi', '電', 'straße', 'το', 'o’clock');
    fc.assert(
      fc.property(fc.array(word, { minLength: 1, maxLength: 8 }), fc.nat(), fc.nat(), (words, from, more) => {
        const first = from % words.length;
        const phrase = words.slice(first, first + 1 + (more % (words.length - first))).join(' ');
        const { index } = htmlSite({ '/': page(words.join(' ')) });
        const wanted = searchedWords(phrase) as string[];
        expect(searchTexts(index, wanted)).toEqual([0]);
        const [hit] = searchPages(index, wanted, [0]);
        expect(hit!.last - hit!.first + 1).toBe(wordsOfText(phrase).length);
      }),
    );
  });
});
