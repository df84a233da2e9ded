/** Words that were found, as they are read on their page, with the text around them. */
import { lineStarts, sourceRange } from '../html';
import type { readBlocks } from '../html';
import { sentenceAround } from '../language';
import type { Hit } from './search';
import { wordsOfText } from './textWords';

export interface Snippet {
  /** Where the words begin, in the bytes as received, from 1; null where their bytes cannot be told. */
  place: { line: number; column: number } | null;
  before: string;
  words: string;
  after: string;
}

/** Characters before and after the words that are shown at most. */
const MOST_AROUND = 200;

export const foldSpaces = (text: string) => text.replace(/\s+/g, ' ');

/** A line and column, both from 1, of a byte of a source. */
export function placeAt(binary: string, at: number): { line: number; column: number } {
  const starts = lineStarts(binary.slice(0, at));
  return { line: starts.length, column: at - starts[starts.length - 1] + 1 };
}

/** Shows words by their block; null where the page is another than the one that was indexed. */
export function snippetOf(
  { blocks, markup }: ReturnType<typeof readBlocks>,
  { block: number, first, last }: Hit,
  language: string,
): Snippet | null {
  const block = blocks[number];
  const words = block ? wordsOfText(block.text) : [];
  if (last >= words.length) return null;
  const { text } = block;
  const [from, to] = [words[first].from, words[last].to];
  const [start, end] = sentenceAround(text, from, to, language) ?? [0, text.length];
  const before = foldSpaces(text.slice(start, from)).trimStart();
  const after = foldSpaces(text.slice(to, end)).trimEnd();
  const one = sourceRange(block, from, Math.min(to, from + 1), markup);
  return {
    place: one ? placeAt(markup.binary, one[0]) : null,
    before: before.length > MOST_AROUND ? `…${before.slice(-MOST_AROUND).replace(/^\S*\s/, ' ')}` : before,
    words: foldSpaces(text.slice(from, to)),
    after: after.length > MOST_AROUND ? `${after.slice(0, MOST_AROUND).replace(/\s\S*$/, ' ')}…` : after,
  };
}
