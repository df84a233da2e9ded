/** The text of a page as a person reads it, for whoever compares two of them. */
import { fold, readMarkup, resolveReferences } from './bytes';
import { elementSet } from './elements';
import { inline } from './inline';
import { scanMarkup } from './scan';

const inert = elementSet('script style template noscript');

/**
 * The text of each block of a page, in order; empty ones are left out.
 * @param bytes the page as received
 * @param charset as its Content-Type names it
 */
export function textBlocks(bytes: Uint8Array, charset: string | undefined): string[] {
  const { binary, decode } = readMarkup(bytes, charset);
  const blocks: string[] = [];
  let text = '';
  let inertDepth = 0;
  const end = () => {
    const block = fold(resolveReferences(decode(text)));
    if (block) blocks.push(block);
    text = '';
  };
  scanMarkup(binary, {
    onOpen: ({ number }) => {
      if (!inline[number]) end();
      if (inert[number]) inertDepth++;
    },
    onText: (raw) => {
      if (inertDepth === 0) text += raw;
    },
    onClose: (_, number) => {
      if (inert[number]) inertDepth--;
      if (!inline[number]) end();
    },
  });
  end();
  return blocks;
}

/** The lines of a page as it was received, decoded. */
export function sourceText(bytes: Uint8Array, charset: string | undefined): string[] {
  const { binary, decode } = readMarkup(bytes, charset);
  return decode(binary).split(/\r\n|[\r\n]/);
}
