/**
 * The text of a page's main content in blocks (paragraphs, items, cells, headings), with the places in the source where
 * it stands: for whoever looks for words in it and changes the source there.
 */
import { isAroundContent } from '../links';
import { readMarkup, resolveReferences } from './bytes';
import type { Markup } from './bytes';
import { elementSet } from './elements';
import { inline } from './inline';
import { landmarkOf } from './landmark';
import type { Landmark } from './landmark';
import { scanMarkup } from './scan';
import type { Tag } from './scan';

/**
 * What a block is: running text, a heading, the label or caption of something, navigation within the content, or a
 * sample of code.
 */
export const blockKinds = ['text', 'heading', 'label', 'navigation', 'sample'] as const;
export type BlockKind = (typeof blockKinds)[number];

/** A piece of a block that stands in the source without a tag in it. */
export interface TextRun {
  /** Where it begins in the text of its block. */
  from: number;
  /** Where it begins in the source, in bytes, and how it is written there. */
  position: number;
  raw: string;
  isLink: boolean;
  isCode: boolean;
}

export interface TextBlock {
  kind: BlockKind;
  /** With references resolved and spaces as they are. */
  text: string;
  runs: TextRun[];
}

const inert = elementSet('script style template noscript iframe object svg math textarea select title');
const headings = elementSet('h1 h2 h3 h4 h5 h6 dt hgroup');
const labels = elementSet('figcaption caption th legend label button summary option');
const samples = elementSet('pre listing xmp');
const code = elementSet('pre code kbd samp tt listing xmp');
/** Elements that end no block, besides those that end no word. */
const within = elementSet(
  'img picture source ins del tt big acronym data label output font blink nobr wbr abbr bdi bdo',
);

/** What the elements that are open mean for the text in them; each count is of open elements. */
interface Frame extends Landmark {
  isNavigation: boolean;
}

const classesOf = (tag: Tag) => `${tag.name}${(tag.get('class') ?? '').slice(0, 200).replace(/(?:^|\s+)(?=\S)/g, '.')}`;

/** Text within `main`, and text in no landmark, as of a page's other facts. */
type Place = 'main' | 'none';

/**
 * The blocks of the main content of a page: of `main` or, without it, of what stands in no landmark.
 * @param bytes the page as received
 * @param charset as its Content-Type names it
 */
export function readBlocks(bytes: Uint8Array, charset: string | undefined): { blocks: TextBlock[]; markup: Markup } {
  const markup = readMarkup(bytes, charset);
  const blocks: Record<Place, TextBlock[]> = { main: [], none: [] };
  const frames: Frame[] = [];
  let hasMain = false;
  let [inertDepth, headingDepth, labelDepth, sampleDepth, codeDepth, linkDepth] = [0, 0, 0, 0, 0, 0];
  let block: TextBlock | null = null;
  const end = () => (block = null);
  const count = (number: number, by: 1 | -1) => {
    inertDepth += by * inert[number];
    headingDepth += by * headings[number];
    labelDepth += by * labels[number];
    sampleDepth += by * samples[number];
    codeDepth += by * code[number];
  };
  const kindAt = (frame: Frame | undefined): BlockKind => {
    if (frame?.isNavigation) return 'navigation';
    if (headingDepth > 0) return 'heading';
    if (labelDepth > 0) return 'label';
    return sampleDepth > 0 ? 'sample' : 'text';
  };
  scanMarkup(markup.binary, {
    onOpen: (tag) => {
      const { number } = tag;
      if (!inline[number] && !within[number]) end();
      const parent = frames[frames.length - 1] ?? null;
      const landmark = landmarkOf(tag, parent);
      if (landmark.placement === 'main') hasMain = true;
      const isNavigation = parent?.isNavigation || (tag.name !== 'body' && isAroundContent(classesOf(tag)));
      frames.push({ ...landmark, isNavigation });
      count(number, 1);
      if (tag.name === 'a' && tag.get('href') !== undefined) linkDepth = frames.length;
    },
    onText: (raw, position) => {
      const frame = frames[frames.length - 1];
      const placement = frame?.placement ?? 'none';
      if (inertDepth > 0 || (placement !== 'main' && placement !== 'none')) return;
      if (!block) {
        if (raw.trim() === '') return;
        block = { kind: kindAt(frame), text: '', runs: [] };
        blocks[placement].push(block);
      }
      block.runs.push({ from: block.text.length, position, raw, isLink: linkDepth > 0, isCode: codeDepth > 0 });
      block.text += resolveReferences(markup.decode(raw));
    },
    onClose: (_, number) => {
      if (linkDepth === frames.length) linkDepth = 0;
      frames.pop();
      count(number, -1);
      if (!inline[number] && !within[number]) end();
    },
  });
  return { blocks: hasMain ? blocks.main : blocks.none, markup };
}

/** The run of a block in which a place of its text stands. */
export function runAt({ runs }: TextBlock, at: number): TextRun {
  let low = 0;
  for (let high = runs.length - 1; low < high;) {
    const middle = (low + high + 1) >> 1;
    if (runs[middle].from <= at) low = middle;
    else high = middle - 1;
  }
  return runs[low];
}

/** How many bytes of a run hold so many UTF-16 units of its text. */
function bytesOf({ raw }: TextRun, units: number, { decode }: Markup): number {
  let bytes = 0;
  let left = units;
  for (const piece of raw.split(/(&#?\w{1,40};?)/)) {
    const { length } = resolveReferences(decode(piece));
    if (length > left) return bytes + prefixOf(piece, left, decode);
    bytes += piece.length;
    left -= length;
    if (left === 0) break;
  }
  return bytes;
}

/** The longest beginning of a text without references that decodes to no more than so many units. */
function prefixOf(piece: string, units: number, decode: Markup['decode']): number {
  let low = 0;
  for (let high = piece.length; low < high;) {
    const middle = (low + high + 1) >> 1;
    if (decode(piece.slice(0, middle)).length <= units) low = middle;
    else high = middle - 1;
  }
  return low;
}

/**
 * Where a part of a block's text stands in the source, in bytes; null where a tag is within it, or its bytes cannot be
 * told.
 */
export function sourceRange(block: TextBlock, from: number, to: number, markup: Markup): [number, number] | null {
  const run = runAt(block, from);
  if (to <= from || runAt(block, to - 1) !== run) return null;
  const range = [from, to].map((at) => run.position + bytesOf(run, at - run.from, markup)) as [number, number];
  const written = resolveReferences(markup.decode(markup.binary.slice(...range)));
  return written === block.text.slice(from, to) ? range : null;
}
