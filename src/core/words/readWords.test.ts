import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fingerprintDistance, mayHaveAny, readWords, stems, wordFilter } from '.';

/** The words of a text, as the definition has them and without regard to speed. */
const signs = '\\p{Script=Han}\\p{Script=Hiragana}\\p{Script=Katakana}';
const letters = `(?:(?![${signs}])[\\p{L}\\p{M}\\p{N}])+`;
const defined = new RegExp(`[${signs}]|${letters}(?:['’-]${letters})*`, 'gu');

describe('words', () => {
  it.each([
    ['', 0],
    [' … — ! ', 0],
    ["the driver's cab", 3],
    ['trolley-bus, 1937-built', 2],
    ["'quoted' -dash- ’", 2],
    ['don’t–can’t', 2],
    ['No. 7', 2],
    ['電車 ホール', 5],
    ['tram電車tram', 4],
    ['𝒜𝒷 c', 2],
    ['🚋 tram 🚋', 1],
    ['café Ünïcode', 2],
  ])('“%s” has %i', (text, words) => expect(readWords(text).wordCount).toBe(words));
  it('are what the definition says, in any text', () =>
    fc.assert(
      fc.property(
        fc.string({ unit: fc.constantFrom('a', 'B', '7', 'é', ' ', '.', "'", '-', '’', '電', 'ア', '🚋') }),
        (text) => {
          expect(readWords(text).wordCount).toBe(text.match(defined)?.length ?? 0);
        },
      ),
    ));
  it('are counted in a text of any length, one after the other', () => {
    const long = 'tram '.repeat(100_000);
    expect([long, 'bus', long, ''].map((text) => readWords(text).wordCount)).toEqual([100_000, 1, 100_000, 0]);
  });
});

describe('the filter of words', () => {
  it.each([
    'The driver’s trolley-buses, 1937-built: bus, buses, BUS! It is a gas',
    'Les dépôts étaient fermés – no-break and quoted “Trams”',
    '電車 ホールのtram, €5 tickets, a€bus, tram€, ½ tram',
    'naïve-tests of Ünïcode’s cafés',
    '🚋tram🚋 𝒜𝒷𝒸 trams',
    ' … — ! ',
    's ss sss ssss sssss ssssss as gas',
  ])('is that of the stems of “%s”', (text) => expect(readWords(text).wordFilter).toEqual(wordFilter(text)));
  it('has every stem of any text', () =>
    fc.assert(
      fc.property(
        fc.string({
          unit: fc.constantFrom('a', 'B', 's', '7', 'é', ' ', '.', "'", '-', '’', '電', 'ア', '🚋', '€', '\u00a0'),
          maxLength: 100,
        }),
        (text) => {
          const { wordFilter: filter } = readWords(text);
          for (const stem of stems(text)) expect([stem, mayHaveAny(filter, [stem])]).toEqual([stem, true]);
        },
      ),
    ));
});

describe('fingerprints', () => {
  const print = (text: string) => readWords(text).fingerprint!;
  it('are of texts with words only', () => expect(readWords('…').fingerprint).toBeNull());
  it('are the same whatever the case, the numbers and what stands between the words', () => {
    const tram = print('Tram 7 leaves the depot at 8');
    expect(print('TRAM 12, leaves\nthe depot: at 9!')).toEqual(tram);
    expect(fingerprintDistance(print('Tram seven leaves the depot at 8'), tram)).toBeGreaterThan(0);
    expect(fingerprintDistance(print('Tram 7a leaves the depot at 8'), tram)).toBeGreaterThan(0);
  });
  it('differ little where little differs, and much where all does', () => {
    const words = Array.from({ length: 400 }, (_, i) => `w${(i * 7919) % 1009}x`);
    const changed = words.with(200, 'other');
    const others = words.map((word) => `${word}y`);
    const [one, near, far] = [words, changed, others].map((list) => print(list.join(' ')));
    expect(fingerprintDistance(one, near)).toBeLessThan(8);
    expect(fingerprintDistance(one, far)).toBeGreaterThan(16);
  });
});
