/** Which words of a sentence become a link: moved word by word, within what can be linked. */

/** A part of a text, in UTF-16 units. */
export type Range = readonly [from: number, to: number];

const wordsOf = (text: string): Range[] =>
  [...text.matchAll(/[\p{L}\p{N}\p{M}]+(?:['’.-][\p{L}\p{N}\p{M}]+)*/gu)].map(({ index, 0: word }) => [
    index,
    index + word.length,
  ]);

/** Moves one end of a range by a word, as far as there is room; never so that no word is left. */
export function moved(text: string, [from, to]: Range, end: 'from' | 'to', step: 1 | -1, room: Range): Range {
  const ends = wordsOf(text).map((word) => (end === 'from' ? word[0] : word[1]));
  const now = end === 'from' ? from : to;
  const next = step > 0 ? ends.find((at) => at > now) : ends.findLast((at) => at < now);
  if (next === undefined || next < room[0] || next > room[1]) return [from, to];
  const range: Range = end === 'from' ? [next, to] : [from, next];
  return range[0] < range[1] ? range : [from, to];
}

/** The whole words that a range touches, within the room; null where there are none. */
export function wholeWords(text: string, [from, to]: Range, room: Range): Range | null {
  const touched = wordsOf(text).filter(([a, b]) => a < to && b > from && a >= room[0] && b <= room[1]);
  return touched.length ? [touched[0][0], touched[touched.length - 1][1]] : null;
}

const capital = /^\p{Lu}/u;

/**
 * The whole phrase around some words: with what stands beside them of the name that they mean, and of a name in
 * capitals that they are cut out of; nothing but spaces is between.
 */
export function wholePhrase(text: string, range: Range, room: Range, name: string): Range {
  const own = new Set(wordsOf(name).map(([from, to]) => name.slice(from, to).toLowerCase()));
  const words = wordsOf(text).filter(([from, to]) => from >= room[0] && to <= room[1]);
  const said = ([from, to]: Range) => text.slice(from, to);
  const belongs = (one: number, beside: number) =>
    own.has(said(words[one]).toLowerCase()) || (capital.test(said(words[one])) && capital.test(said(words[beside])));
  const isJoined = (one: number, next: number) => /^\s+$/.test(text.slice(words[one][1], words[next][0]));
  /** An article or its kin, which begins and ends no phrase. */
  const isSmall = (one: number) => /^\p{L}\p{Ll}{0,2}$/u.test(said(words[one]));
  const [start, end] = [words.findIndex(([from]) => from === range[0]), words.findIndex(([, to]) => to === range[1])];
  if (start < 0 || end < 0) return range;
  let [first, last] = [start, end];
  while (last + 1 < words.length && isJoined(last, last + 1) && belongs(last + 1, last)) last++;
  while (first > 0 && isJoined(first - 1, first) && belongs(first - 1, first)) first--;
  while (first < start && isSmall(first)) first++;
  while (last > end && isSmall(last)) last--;
  return [words[first][0], words[last][1]];
}
