import fc from 'fast-check';
import { expect, it } from 'vitest';
import { firstSeenIn, noneSeen, packFirstSeen, seenSince, unpackFirstSeen, wordingKey } from '.';
import { tiny, tinySite } from '../testing/tinySite';

const site = (...words: string[]) =>
  tinySite({
    '/': { worded: words.map((word): [string, string, 'main'] => ['/depot', word, 'main']) },
    '/depot': {},
  });
const since = (seen: ReturnType<typeof firstSeenIn>, words: string) =>
  seenSince(seen, wordingKey(tiny('/depot'), words, ''));

it('wordings are known since the crawl that had them first, also when one between had not', () => {
  const first = firstSeenIn(site('depot', 'shed'), noneSeen, 100);
  const second = unpackFirstSeen(packFirstSeen(firstSeenIn(site('depot'), first, 200)));
  const third = firstSeenIn(site('depot', 'shed', 'hall'), second, 300);
  expect(['depot', 'shed', 'hall', 'roof'].map((words) => since(third, words))).toEqual([100, 100, 300, null]);
});
it('different wordings have different keys', () => {
  const text = fc.string({ maxLength: 5 });
  fc.assert(
    fc.property(text, text, text, text, (a, b, c, d) => {
      fc.pre(a !== c || b !== d);
      expect(wordingKey(a, b, '')).not.toBe(wordingKey(c, d, ''));
    }),
    { numRuns: 1000 },
  );
});
