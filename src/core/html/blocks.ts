/** Which links have other words beside them in their block: a paragraph, a list item, or a row of a table. */
import { inline } from './inline';
import type { FoundLink } from './resolve';

/** What stands in the block at hand: its click links, and whether it has had words outside of them. */
export interface Block {
  links: FoundLink[];
  hasWords: boolean;
}

/** Cells do not end a block: what stands beside a link in its row tells what it is about. */
export const isInBlock = (name: string, number: number) => inline[number] || name === 'td' || name === 'th';

export function endBlock(block: Block): void {
  if (block.links.length > 1) for (const link of block.links) link.beside = true;
  if (block.links.length) block.links = [];
  block.hasWords = false;
}

export function addToBlock(block: Block, link: FoundLink): void {
  if (block.hasWords) link.beside = true;
  else block.links.push(link);
}

/** Notes words outside of links: all links of their block have them beside. */
export function addWords(block: Block): void {
  for (const link of block.links) link.beside = true;
  block.links = [];
  block.hasWords = true;
}
