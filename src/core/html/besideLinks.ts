/** Which links have other words beside them in their block: a paragraph, a list item, or a row of a table. */
import type { Link } from '../links';
import { inline } from './inline';

/** What stands in the block at hand. */
export interface Block {
  /** Its click link while it has nothing else. */
  only: Link | null;
  /** Whether it has had words outside of links, or several links: each link in it has others beside it. */
  isShared: boolean;
}

/** Cells do not end a block: what stands beside a link in its row tells what it is about. */
export const isInBlock = (name: string, number: number) => inline[number] || name === 'td' || name === 'th';

export function endBlock(block: Block): void {
  block.only = null;
  block.isShared = false;
}

/** Notes words outside of the link that the block has so far. Those of another link are such words, too. */
export function addWords(block: Block): void {
  if (block.only) block.only.beside = true;
  block.only = null;
  block.isShared = true;
}

export function addToBlock(block: Block, link: Link): void {
  if (block.only) addWords(block);
  if (block.isShared) link.beside = true;
  else block.only = link;
}
