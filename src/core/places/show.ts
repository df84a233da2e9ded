/** A place that was found, in the source of its page: to be read, and to be changed there. */
import { runAt, sourceRange } from '../html';
import type { readBlocks, TextBlock, TextRun } from '../html';
import { isSmallWord, isWordBoundary, sentenceAround } from '../language';
import { foldSpaces, placeAt, wordsOfText } from '../textIndex';

/** Where words stand that may become a link. */
export interface Place {
  /** In the bytes as received, from 1. */
  line: number;
  column: number;
  /** The words as they are read, and the sentence in which they stand, in three parts. */
  anchor: string;
  before: string;
  after: string;
  /** How many characters beside the words, before and after, could be linked with them: no tag is between. */
  room: [before: number, after: number];
  /** How many links there are in the paragraph. */
  links: number;
}

/** What goes on with the word next to it. */
const joint = /[\p{L}\p{N}\p{M}_]|[-./@#$](?=[\p{L}\p{N}_])/u;
const jointBefore = /[\p{L}\p{N}_]$|[\p{L}\p{N}_][-.:@#$]$|[@#$.]$/u;

/** How long a run is in the text of its block. */
const runLength = (run: TextRun, { runs, text }: TextBlock) =>
  (runs[runs.indexOf(run) + 1]?.from ?? text.length) - run.from;

type Read = ReturnType<typeof readBlocks>;

/**
 * Shows a place by the words of a block.
 * @param first and last word of the block, as the index counts them
 * @returns null when they cannot be linked there: a tag or the end of a sentence is between them, or they are part of a
 *   longer word
 */
export function showPlace(
  { blocks, markup }: Read,
  mention: { block: number; first: number; last: number },
  language: string,
): Place | null {
  const { block: number } = mention;
  const block = blocks[number];
  const words = block ? wordsOfText(block.text) : [];
  if (mention.last >= words.length) return null;
  const { text } = block;
  // A small word that hangs on with a hyphen is part of the name: in-memory, follow-up.
  const hangsOn = (at: number) => text.slice(words[at - 1]?.to, words[at]?.from) === '-';
  let { first, last } = mention;
  while (first > 0 && hangsOn(first) && isSmallWord(words[first - 1].text, language)) first--;
  while (last + 1 < words.length && hangsOn(last + 1) && isSmallWord(words[last + 1].text, language)) last++;
  const [from, to] = [words[first].from, words[last].to];
  if (jointBefore.test(text.slice(Math.max(0, from - 2), from)) && !isApartScript(text, from)) return null;
  // An apostrophe with its s may follow: Lantern Lane's.
  if (new RegExp(`^(?:${joint.source})`, 'u').test(text.slice(to, to + 2)) && !isApartScript(text, to)) return null;
  if (!isWordBoundary(text, from, language) || !isWordBoundary(text, to, language)) return null;
  const sentence = sentenceAround(text, from, to, language);
  const range = sentence && sourceRange(block, from, to, markup);
  if (!range) return null;
  const run = runAt(block, from);
  return {
    ...placeAt(markup.binary, range[0]),
    anchor: foldSpaces(text.slice(from, to)),
    before: foldSpaces(text.slice(sentence[0], from)).trimStart(),
    after: foldSpaces(text.slice(to, sentence[1])).trimEnd(),
    room: [
      foldSpaces(text.slice(Math.max(run.from, sentence[0]), from)).trimStart().length,
      foldSpaces(text.slice(to, Math.min(run.from + runLength(run, block), sentence[1]))).trimEnd().length,
    ],
    links: block.runs.filter((one, i) => one.isLink && !block.runs[i - 1]?.isLink).length,
  };
}

const unspaced =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}\p{Script=Myanmar}]/u;
/** Whether words stand beside each other without a space there. */
const isApartScript = (text: string, at: number) => unspaced.test(text[at - 1] ?? '') || unspaced.test(text[at] ?? '');
