import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { IN_CODE, IN_LINK, IS_APART, openTextIndex, pageWords, textIndexBuilder, wordsOfText } from '.';
import { blockKinds, readBlocks } from '../html';

const blocksOf = (html: string) => readBlocks(new TextEncoder().encode(html), 'utf-8').blocks;
function indexOf(pages: [language: string | null, html: string][]) {
  const builder = textIndexBuilder();
  pages.forEach(([language, html], page) => builder.add({ page, language, blocks: blocksOf(html) }));
  return openTextIndex(builder.finish());
}
function wordsOn(index: ReturnType<typeof indexOf>, page: number) {
  const words = pageWords();
  index.read(page, words);
  return Array.from(words.form.subarray(0, words.words), (form, i) => [index.formText(form), words.flags[i]] as const);
}

describe('the words of a text', () => {
  it.each([
    ["Lantern Lane's depot", 'Lantern Lane s depot'],
    ['trolley-bus, l’histoire', 'trolley bus| l histoire'],
    ['Trolleybus No. 19 ran. It stopped', 'Trolleybus No 19 ran| It stopped'],
    ['see B.6, fs.open() and sqlite3_open_v2', 'see B 6| fs open| and sqlite3_open_v2'],
    ['인증을 설정', '인 증 을 설 정'],
    ['電車 tram', '電 車 tram'],
    ['“Lantern” & Lane', 'Lantern Lane'],
  ])('“%s” are %s', (text, words) =>
    expect(
      wordsOfText(text)
        .map((word) => (word.isApart ? `| ${word.text}` : ` ${word.text}`))
        .join('')
        .trim(),
    ).toBe(words),
  );
});

describe('an index of texts', () => {
  it('has the words of pages with what is said of them', () =>
    expect(wordsOn(indexOf([['en', '<p>See <a href="/x">the depot</a>, or <code>open</code></p>']]), 0)).toEqual([
      ['See', 0],
      ['the', IN_LINK],
      ['depot', IN_LINK],
      ['or', IS_APART],
      ['open', IN_CODE],
    ]));
  it('keeps languages apart, told by tag or by small words', () => {
    const french = `<p>${'le tram est dans le dépôt et il est à la gare '.repeat(3)}</p>`;
    const index = indexOf([
      ['en-GB', '<p>die tram</p>'],
      ['de', '<p>die tram</p>'],
      [null, french],
      [null, '<p>tram</p>'],
    ]);
    expect([0, 1, 2].map((page) => index.languages[index.languageNumber(page)])).toEqual(['en', 'de', 'fr']);
    const [english, german] = [0, 1].map((page) => index.stemOf('tram', index.languageNumber(page)));
    expect(english).not.toBe(german);
    expect([0, 1].map((page) => index.isSmallWord('die', index.languageNumber(page)))).toEqual([false, true]);
  });
  it('knows blocks that recur, and inflections', () => {
    const index = indexOf(
      Array.from({ length: 30 }, (_, i) => ['en', `<p>Open daily from ten to five</p><p>Tram ${i} of all trams</p>`]),
    );
    const words = pageWords();
    index.read(7, words);
    expect([0, 1].map((block) => index.recurs(words.form, words.first[block], words.first[block + 1]))).toEqual([
      true,
      false,
    ]);
    expect(index.stemOf('tram', 0)).toBe(index.stemOf('trams', 0));
    expect(index.stemOf('zeppelin', 0)).toBe(-1);
  });
  it('gives back any text, word by word', () =>
    fc.assert(
      fc.property(
        fc.array(
          fc.array(
            fc.constantFrom(
              'tram ',
              'Depot, ',
              '電車',
              '인증 ',
              '<b>x</b> ',
              '<a href=/>y</a> ',
              '12345 ',
              '<h2>H</h2>',
              '. ',
              'é',
            ),
            { maxLength: 30 },
          ),
          { maxLength: 4 },
        ),
        (pages) => {
          const htmls = pages.map((pieces) => `<p>${pieces.join('')}</p>`);
          const index = indexOf(htmls.map((html) => ['en', html]));
          htmls.forEach((html, page) => {
            const blocks = blocksOf(html);
            const written = blocks.flatMap(({ text }) =>
              wordsOfText(text).map((word) => (/^\d{5,}$/.test(word.text) ? '#' : word.text)),
            );
            expect(wordsOn(index, page).map(([word]) => word)).toEqual(written);
            const words = pageWords();
            index.read(page, words);
            expect(Array.from(words.kind.subarray(0, words.blocks), (kind) => blockKinds[kind])).toEqual(
              blocks.map(({ kind }) => kind),
            );
          });
        },
      ),
    ));
});
