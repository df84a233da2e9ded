import { describe, expect, it } from 'vitest';
import { guessLanguage, isSmallWord, isWordBoundary, languageOf, sentenceAround, stemOf } from '.';

describe('a sentence', () => {
  const around = (text: string, words: string, language = 'en') => {
    const from = text.indexOf(words);
    const range = sentenceAround(text, from, from + words.length, language);
    return range && text.slice(...range).trim();
  };
  it.each([
    ['It ran. The depot is old. It stands.', 'depot', 'The depot is old.'],
    ['It ran.\n  The depot\n  is old. It stands.', 'depot', 'The depot\n  is old.'],
    ['Trolleybus No. 19 ran to the depot. It stopped.', 'depot', 'Trolleybus No. 19 ran to the depot.'],
    ['Dr. Hall and J. Marsh met, e.g. here. They left.', 'Marsh', 'Dr. Hall and J. Marsh met, e.g. here.'],
    ['電車は古い。車庫は新しい。', '車庫', '車庫は新しい。'],
    ['One tram. One bus.', 'tram. One', null],
  ])('of “%s” around “%s” is “%s”', (text, words, sentence) => expect(around(text, words)).toBe(sentence));
});

describe('words of a language', () => {
  it.each([
    ['trolleybuses', 'trolleybus', 'en'],
    ['Fahrscheine', 'Fahrschein', 'de'],
    ['chevaux', 'cheval', 'fr'],
    ['estaciones', 'estación', 'es'],
    ['stazioni', 'stazione', 'it'],
    ['treinen', 'trein', 'nl'],
    ['bilhetes', 'bilhete', 'pt'],
    ['vagnarna', 'vagnar', 'sv'],
  ])('%s and %s have one stem in %s', (one, other, language) =>
    expect(stemOf(one, language)).toBe(stemOf(other, language)),
  );
  it('have no stem of another language', () => expect(stemOf('trams', 'ja')).toBe('trams'));
  it('are small, but for those in capitals', () =>
    expect([isSmallWord('The', 'en'), isSmallWord('WITHOUT', 'en'), isSmallWord('die', 'en')]).toEqual([
      true,
      false,
      false,
    ]));
  it('tell a language, unless there are too few of them', () => {
    const german =
      'der wagen ist in der halle und die karten sind bei dem fahrer zu haben wie es vor dem krieg war'.split(' ');
    expect([guessLanguage(german), guessLanguage(['der', 'wagen'], 'en')]).toEqual(['de', 'en']);
    expect(['en-GB', 'zh-Hant', ' FR ', '', null, '12'].map(languageOf)).toEqual(['en', 'zh', 'fr', '', '', '']);
  });
  it('end where a dictionary says so in scripts without spaces', () => {
    const text = '電車の車庫';
    expect([isWordBoundary(text, 1, 'ja'), isWordBoundary(text, 2, 'ja'), isWordBoundary(text, 0, 'ja')]).toEqual([
      false,
      true,
      true,
    ]);
  });
});
