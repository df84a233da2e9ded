/** Where the sentences of a text end (Unicode Standard Annex #29), abbreviations within them left whole. */

const segmenters = new Map<string, Intl.Segmenter>();

function segmenterOf(language: string, granularity: 'sentence' | 'word'): Intl.Segmenter {
  const key = `${language} ${granularity}`;
  let segmenter = segmenters.get(key);
  if (!segmenter) segmenters.set(key, (segmenter = new Intl.Segmenter(language || 'en', { granularity })));
  return segmenter;
}

/** What ends no sentence though a full stop follows: No. 19, Dr. Hall, J. Marsh, e.g. this, z. B. so, approx. 40. */
const abbreviation =
  /(?:^|[\s(])(?:\p{Lu}|\p{Lu}\p{Ll}{1,2}|\p{L}\.\s?\p{L}|approx|incl|fig|vol|dept|prof|capt|ca|cf|pp?|bzw|vgl|nr|env|resp)\.\s*$/u;

/** So much around a place is looked at: no person writes longer sentences. */
const MOST_TEXT = 20_000;

/** The sentence of a text in which a part of it stands; null when it goes over the end of one. */
export function sentenceAround(text: string, from: number, to: number, language: string): [number, number] | null {
  const begin = Math.max(0, from - MOST_TEXT / 2);
  // A line that ends in the source ends nothing for a reader.
  const part = text.slice(begin, to + MOST_TEXT / 2).replace(/\s/g, ' ');
  let start = 0;
  for (const { index, segment } of segmenterOf(language, 'sentence').segment(part)) {
    const end = index + segment.length;
    if (end < part.length && abbreviation.test(segment) && end - start < MOST_TEXT / 2) continue;
    if (begin + end > from) return begin + end >= to ? [begin + start, begin + end] : null;
    start = end;
  }
  return null;
}

/** Whether a word begins or ends at a place of a text, in scripts that set no spaces between words too. */
export function isWordBoundary(text: string, at: number, language: string): boolean {
  if (at <= 0 || at >= text.length) return true;
  const begin = Math.max(0, at - 40);
  const found = segmenterOf(language, 'word')
    .segment(text.slice(begin, at + 40))
    .containing(at - begin);
  return found === undefined || found.index === at - begin;
}
