import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseSelection } from '$core/selection';
import { combinationTest, readSources, sourcesText, sourceTest } from './sources';

describe('sources in an address', () => {
  it('are read as they were written, whatever they are called', () =>
    fc.assert(
      fc.property(fc.array(fc.string({ unit: 'grapheme', minLength: 1 })), (names) => {
        expect(readSources(sourcesText(names))).toEqual(names);
      }),
    ));
  it('are none where they cannot be read', () => expect(readSources('log:%E0%A4%A')).toEqual([]));
});

describe('sources in a selection', () => {
  it.each([
    ['links', 'seen in links'],
    ['log:May', 'log("May")'],
    ['list:“Ads”: autumn', 'list("“Ads”: autumn")'],
  ])('%s is asked for as %s', (name, test) => expect(sourceTest(name)).toBe(test));
  it('are joined to what exactly some of them know', () => {
    const test = combinationTest(['links', 'sitemap', 'log:May'], ['sitemap', 'log:May']);
    expect(test).toBe('not seen in links and seen in sitemap and log("May")');
    expect(parseSelection(test).ok).toBe(true);
  });
});
