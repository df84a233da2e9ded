/** The text around a link: what a person reads before and after it. */
import { fold, readMarkup, resolveReferences } from './bytes';
import { elementSet } from './elements';
import { inline } from './inline';
import { scanMarkup } from './scan';
import { lineStarts } from './source';
import type { Place } from './source';

const inert = elementSet('script style template');

/** The text of a block around a link: what stands before its words, they themselves, and what stands after them. */
export interface Block {
  before: string;
  words: string;
  after: string;
}

/**
 * The text of the block in which a link stands: from the nearest element before it that ends a word to the nearest
 * after it. Spaces are single.
 * @param bytes the page as received
 * @param charset as its Content-Type names it
 * @returns null when nothing begins at that place
 */
export function blockAt(bytes: Uint8Array, charset: string | undefined, { line, column }: Place): Block | null {
  const { binary, decode } = readMarkup(bytes, charset);
  const position = (lineStarts(binary)[line - 1] ?? Infinity) + column - 1;
  let text = '';
  let inertDepth = 0;
  let depth = 0;
  /** Where the words of the link begin and end in the text, and how deep it is nested. */
  let link: { from: number; to: number; depth: number } | null = null;
  let isOver = false;
  const boundary = (isInline: boolean) => {
    if (isInline || isOver) return;
    if (link) isOver = true;
    else text = '';
  };
  scanMarkup(binary, {
    onOpen: (tag) => {
      boundary(Boolean(inline[tag.number]));
      if (tag.position === position) link = { from: text.length, to: -1, depth };
      depth++;
      if (inert[tag.number]) inertDepth++;
    },
    onText: (raw) => {
      if (!isOver && inertDepth === 0) text += raw;
    },
    onClose: (_, number) => {
      depth--;
      if (inert[number]) inertDepth--;
      if (link?.depth === depth && link.to < 0) link.to = text.length;
      boundary(Boolean(inline[number]));
    },
  });
  // What a handler has assigned, the compiler does not see.
  const found = link as { from: number; to: number } | null;
  if (!found) return null;
  const to = found.to < 0 ? text.length : found.to;
  const part = (raw: string) => resolveReferences(decode(raw)).replace(/\s+/g, ' ');
  return {
    before: part(text.slice(0, found.from)).trimStart(),
    words: part(text.slice(found.from, to)),
    after: part(text.slice(to)).trimEnd(),
  };
}

/** {@link blockAt} as one text; '' when nothing begins at that place. */
export function blockAround(bytes: Uint8Array, charset: string | undefined, place: Place): string {
  const block = blockAt(bytes, charset, place);
  return block ? fold(block.before + block.words + block.after) : '';
}
