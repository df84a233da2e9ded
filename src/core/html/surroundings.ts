/** The text around a link: what a person reads before and after it. */
import { fold, readMarkup, resolveReferences } from './bytes';
import { elementSet } from './elements';
import { inline } from './inline';
import { scanMarkup } from './scan';
import { lineStarts } from './source';
import type { Place } from './source';

const inert = elementSet('script style template');

/**
 * The text of the block in which a link stands: from the nearest element before it that ends a word to the nearest
 * after it.
 * @param bytes the page as received
 * @param charset as its Content-Type names it
 * @returns '' when nothing begins at that place
 */
export function blockAround(bytes: Uint8Array, charset: string | undefined, { line, column }: Place): string {
  const { binary, decode } = readMarkup(bytes, charset);
  const position = (lineStarts(binary)[line - 1] ?? Infinity) + column - 1;
  let text = '';
  let inertDepth = 0;
  let met = false;
  let isOver = false;
  const boundary = (isInline: boolean) => {
    if (isInline || isOver) return;
    if (met) isOver = true;
    else text = '';
  };
  scanMarkup(binary, {
    onOpen: (tag) => {
      boundary(Boolean(inline[tag.number]));
      if (tag.position === position) met = true;
      if (inert[tag.number]) inertDepth++;
    },
    onText: (raw) => {
      if (!isOver && inertDepth === 0) text += raw;
    },
    onClose: (_, number) => {
      if (inert[number]) inertDepth--;
      boundary(Boolean(inline[number]));
    },
  });
  return met ? fold(resolveReferences(decode(text))) : '';
}
