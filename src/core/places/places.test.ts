import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { givenHtml, placeRow, placesOf, showPlace } from '.';
import { editOf } from '../draft';
import type { DraftEdit } from '../draft';
import { readBlocks } from '../html';
import { atOnce } from '../promises';
import { addressAt, pageOf } from '../snapshot';
import { htmlSite } from '../testing/htmlSite';
import { tiny } from '../testing/tinySite';
import { pageWords } from '../textIndex';
import type { View } from '../view';
import type { PlaceOptions } from '.';

const filler = 'The museum is open on Sundays. Visitors come by bus and leave by boat. Nothing else is said here.';
const pageOfText = (title: string, body: string, language = 'en') =>
  `<html lang="${language}"><title>${title} – Larkfield</title><main><h1>${title}</h1><p>${filler}</p>${body}</main>`;

/** Places for links to a page of a site, each as its source and sentence. */
function placesOn(pages: Record<string, string>, to: string, options?: PlaceOptions) {
  const { view, index, blocks } = htmlSite(pages);
  const target = pageOf(view, tiny(to));
  const found = atOnce(placesOf(view, index).to([target], { least: 0, ...options })).get(target)!;
  return found.flatMap((one) => {
    for (const mention of [one, ...one.also]) {
      const read = blocks.get(one.source)!;
      const at = showPlace(read, mention, 'en');
      const source = new URL(addressAt(view, one.source)).pathname;
      if (at) return [{ ...at, source, binary: read.markup.binary }];
    }
    return [];
  });
}
const told = (found: ReturnType<typeof placesOn>) =>
  found.map(({ source, before, anchor, after }) => `${source}: ${before}[${anchor}]${after}`);

const others = Object.fromEntries(
  ['Tickets', 'Opening times', 'Press', 'Shop', 'School visits', 'Volunteers'].map((title) => [
    `/${title.toLowerCase().replace(' ', '-')}`,
    pageOfText(title, ''),
  ]),
);
const depot = pageOfText('The roof of Lantern Lane depot', '<h2>Glass and iron</h2>');

describe('places that could link to a page', () => {
  it('are sentences of other pages that name it, those that name it in full first, a small word more or less', () =>
    expect(
      told(
        placesOn(
          {
            ...others,
            '/roof': depot,
            '/a': pageOfText('Trams', '<p>She was repaired under the roof of the Lantern Lane depot. It rained.</p>'),
            '/b': pageOfText('Boats', '<p>They all met in Lantern Lane; nobody knew of a depot.</p>'),
          },
          '/roof',
        ),
      ),
    ).toEqual([
      '/a: She was repaired under the [roof of the Lantern Lane depot].',
      '/b: They all met in [Lantern Lane]; nobody knew of a depot.',
    ]));
  it.each([
    ['a link', '<p>See <a href="/press">the roof of Lantern Lane depot</a> and what is left of it.</p>'],
    ['a heading', '<h2>The roof of Lantern Lane depot today</h2>'],
    ['a caption', '<figure><figcaption>The roof of Lantern Lane depot in 1911</figcaption></figure>'],
    ['code', '<p>Type <code>roof of Lantern Lane depot</code> into the box there.</p>'],
    ['a sample of code', '<pre>Now the roof of Lantern Lane depot is open</pre>'],
    ['navigation', '<ul class="menu"><li>Now the roof of Lantern Lane depot</li></ul>'],
    ['a longer name', '<p>Few have seen the new Roof of Lantern Lane Depot Number Two so far.</p>'],
  ])('do not lie in %s', (_, body) =>
    expect(told(placesOn({ ...others, '/roof': depot, '/a': pageOfText('Trams', body) }, '/roof'))).toEqual([]),
  );
  it('are not on pages that link to it, may not be indexed, or are in another language', () => {
    const body = '<p>She stood under the roof of Lantern Lane depot for years.</p>';
    const found = placesOn(
      {
        ...others,
        '/roof': depot,
        '/linking': pageOfText('Trams', `${body}<p>More on the <a href="/roof">roof</a> there.</p>`),
        '/closed': pageOfText('Boats', body).replace('<title>', '<meta name="robots" content="noindex"><title>'),
        '/fr': pageOfText('Trams', body, 'fr'),
        '/good': pageOfText('Buses', body),
      },
      '/roof',
    );
    expect(found.map(({ source }) => source)).toEqual(['/good']);
  });
  it('come last where a word beside narrows what they name to one kind of it', () => {
    const trams = (sentence: string) => pageOfText('Rides', `<p>${sentence}</p>`);
    const found = placesOn(
      {
        ...others,
        '/trams': pageOfText('Night trams', ''),
        '/a': trams('In July a steam night tram takes children up to the viaduct.'),
        '/b': trams('The last steam night trams were sold for scrap within a year.'),
        '/c': trams('In those years people took night trams to the beach every Sunday.'),
        '/d': trams('Nobody took a horse or a bus where the rails were laid.'),
      },
      '/trams',
    );
    expect(found.map(({ source }) => source)).toEqual(['/c', '/b', '/a']);
  });
  it('match a name in capitals by capitals alone', () =>
    expect(
      told(
        placesOn(
          {
            ...others,
            '/rest': pageOfText('REST', ''),
            '/a': pageOfText('Trams', '<p>They had a rest after the journey home.</p>'),
            '/b': pageOfText('Boats', '<p>The timetable has a REST service for builders of signs.</p>'),
          },
          '/rest',
        ),
      ),
    ).toEqual(['/b: The timetable has a [REST] service for builders of signs.']));
  it('are found in scripts without spaces, by whole words', () =>
    expect(
      told(
        placesOn(
          {
            ...Object.fromEntries(Object.entries(others).map(([path, html]) => [path, html.replace('"en"', '"ja"')])),
            '/shako': pageOfText('車庫の屋根', '', 'ja'),
            '/a': pageOfText('電車', '<p>電車は車庫の屋根の下で修理されました。</p>', 'ja'),
          },
          '/shako',
        ),
      ),
    ).toEqual(['/a: 電車は[車庫の屋根]の下で修理されました。']));
  it('never cross a tag or the end of a sentence, and stand at their line and column', () => {
    const piece = fc.constantFrom(
      'Lantern ',
      'Lane ',
      'depot',
      '. ',
      ', ',
      ' the ',
      'roof of ',
      '<b>',
      '</b>',
      '<a href="/press">',
      '</a>',
      '\n',
      '&amp; ',
      'é ',
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 25 }), (pieces) => {
        const body = `<p>Before it all was said ${pieces.join('')} and so on it went.</p>`;
        const found = placesOn({ ...others, '/roof': depot, '/a': pageOfText('Trams', body) }, '/roof');
        for (const { line, column, anchor, binary } of found) {
          const lines = binary.split('\n');
          const rest = [lines[line - 1].slice(column - 1), ...lines.slice(line)].join(' ').replaceAll('&amp;', '&');
          expect(rest.replace(/\s+/g, ' ').slice(0, anchor.length)).toBe(anchor);
          expect(anchor).not.toMatch(/[.<]/);
        }
      }),
      { numRuns: 60 },
    );
  });
});

/** What one page, or a text, names of a site, as its words and where they could lead. */
const named = (found: readonly { target: number }[], view: View) =>
  found.map(({ target }) => new URL(addressAt(view, target)).pathname).sort();
const museum = {
  ...others,
  '/roof': depot,
  '/conductor': pageOfText('The last conductor', ''),
  '/a': pageOfText('Trams', '<p>The last conductor sat under the roof of Lantern Lane depot with Ada Marsh.</p>'),
  '/b': pageOfText('Boats', '<p>More of <a href="/conductor">Ada Marsh</a>, and <a href="/press">more</a>.</p>'),
};

describe('links that a text lacks', () => {
  const { view, index } = htmlSite(museum);
  const places = placesOf(view, index);
  it('lead to the pages that it names, by their titles and by what links call them', () => {
    const found = atOnce(places.from(pageOf(view, tiny('/a')), { least: 0 }));
    expect(named(found, view)).toEqual(['/conductor', '/roof']);
    expect(atOnce(places.from(pageOf(view, tiny('/roof')), { least: 0 }))).toEqual([]);
  });
  it('are found in one that is not on the site, with the words to link', () => {
    const html = givenHtml('Tea & cake with Ada Marsh.\n\nWhoever saw the roof of Lantern Lane depot <then> wept.');
    const read = readBlocks(new TextEncoder().encode(html), 'utf-8');
    const { found, language } = atOnce(places.inText(read.blocks, { least: 0 }));
    expect(language).toBe('en');
    expect(named(found, view)).toEqual(['/conductor', '/roof']);
    expect(found.map((one) => showPlace(read, one, language)!.anchor).sort()).toEqual([
      'Ada Marsh',
      'roof of Lantern Lane depot',
    ]);
    expect(places.site.index.read(view.count, pageWords())).toBe(false);
  });
  it('are of no language that the site has not, and of no empty text', () =>
    expect(atOnce(places.inText(readBlocks(new Uint8Array(0), 'utf-8').blocks)).found).toEqual([]));
});

it('the same words of a sentence are not to lead to two pages', () => {
  const { view, index, blocks } = htmlSite(museum);
  const source = pageOf(view, tiny('/a'));
  const shown = atOnce(placesOf(view, index).from(source, { least: 0 })).map((one) => ({
    ...one,
    at: showPlace(blocks.get(source)!, one, 'en')!,
  }));
  const edit = (anchor: string) => ({
    ...editOf('add_link', tiny('/a'), { target: tiny('/press'), anchor, value: sentence }),
    ...{ id: 'x', at: new Date(), on: true, done: false },
  });
  const { before, anchor, after } = shown[0].at;
  const sentence = before + anchor + after;
  const clashes = (words: string) => shown.map((one) => placeRow(view, one, [edit(words) as DraftEdit]).clash);
  expect(clashes('under the roof')).toEqual([tiny('/press'), null]);
  expect(clashes('sat under')).toEqual([null, null]);
});
