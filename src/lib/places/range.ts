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
