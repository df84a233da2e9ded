import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { MAX_FILTER_BYTES, mayHaveAny, stems, wordFilter } from '.';

describe('a word filter', () => {
  const text = 'The trams of the northern depot were painted green in 1931. Les dépôts étaient fermés.';
  const filter = wordFilter(text);
  it('has the words of its text, in any form and case', () => {
    for (const words of ['tram', 'Painting', 'DEPOTS', '1931', 'fermé', 'depot'])
      expect([words, mayHaveAny(filter, stems(words))]).toEqual([words, true]);
  });
  it.each([
    ['Apache の環境変数', '環境変数', '変数', '数'],
    ['사용자 인증을 설정합니다', '인증', '설정', '인'],
    ['ตัวแปรสภาพแวดล้อม', 'ตัวแปร'],
    ['Go to B.6, ab and vi', 'B.6', 'ab', 'Go', 'vi'],
    ['Переменные окружения', 'переменные'],
    ['متغيرات البيئة', 'البيئة'],
  ])('knows the words of “%s”, in scripts with and without spaces, however short', (whole, ...parts) => {
    const built = wordFilter(whole);
    for (const part of parts) expect([part, mayHaveAny(built, stems(part))]).toEqual([part, true]);
  });
  it('leaves small words out where the language is known, unless there are no others', () => {
    expect([...stems('to the depot', 'en')]).toEqual(['depot']);
    expect([...stems('to the', 'en')]).toEqual(['to', 'the']);
    expect([...stems('der Kuss', 'de')]).toEqual(['kus']);
  });
  it('lacks words of other texts', () => {
    const others = ['submarine', 'cathedral', 'volcano', 'glacier', 'orchestra', 'saxophone', 'zeppelin', 'cucumber'];
    expect(others.filter((word) => mayHaveAny(filter, stems(word))).length).toBeLessThan(3);
  });
  it('is as large as its text needs, up to a bound', () => {
    expect(mayHaveAny(wordFilter('… — !'), stems('anything'))).toBe(false);
    expect(wordFilter('bus')).toHaveLength(8);
    const long = Array.from({ length: 20_000 }, (_, i) => `w${i.toString(36)}x`).join(' ');
    expect(wordFilter(long)).toHaveLength(MAX_FILTER_BYTES);
    expect(mayHaveAny(new Uint8Array(0), ['anything'])).toBe(true);
  });
  it('never denies a word that is there', () => {
    fc.assert(
      fc.property(fc.array(fc.string({ unit: 'grapheme', minLength: 1 }), { minLength: 1, maxLength: 60 }), (parts) => {
        const built = wordFilter(parts.join(' '));
        for (const part of parts) {
          const own = stems(part);
          if (own.size) expect(mayHaveAny(built, own)).toBe(true);
        }
      }),
    );
  });
});
