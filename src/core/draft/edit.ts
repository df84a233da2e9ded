/** Edits of a site, as data: what a draft is made of, and one record each of a file of edits. */
import type { Message } from '../messages';

// Several words a line, to be read as a whole:
// prettier-ignore
export const editOps = [
  'add_link', 'remove_link', 'reword_link', 'retarget_link', 'add_page', 'remove_page', 'move_page', 'redirect',
  'canonical', 'noindex', 'index', 'nofollow', 'follow', 'robots',
] as const;
export type EditOp = (typeof editOps)[number];

/** One edit. What an operation does not need is ''. */
export interface Edit {
  op: EditOp;
  /**
   * The page that is edited: its address, or a pattern with `*` for all pages that it matches; of a robots.txt any
   * address of its host.
   */
  source: string;
  /** What a link, redirect or canonical points at; where a page moves. */
  target: string;
  /** The words of a link: those that it gets, or by which it is told from others of the pair. */
  anchor: string;
  /** The landmark of a link (`placements`), likewise. */
  placement: string;
  /**
   * Of add_link the sentence in which its words stand already, '' without; of add_page the title; of remove_page 404,
   * 410 or the address that it redirects to, 404 without; of reword_link the new words, of retarget_link the new
   * target; of move_page `links` where links to it are corrected; of robots the text of the file.
   */
  value: string;
}

/** The parts of an edit, in the order of the columns of a file of edits. */
export const editFields = ['op', 'source', 'target', 'anchor', 'placement', 'value'] as const;

/** An edit of which only some parts are said. */
export const editOf = (op: EditOp, source: string, rest: Partial<Omit<Edit, 'op' | 'source'>> = {}): Edit => ({
  op,
  source,
  target: '',
  anchor: '',
  placement: '',
  value: '',
  ...rest,
});

/** Why an edit cannot be applied; null where it was. */
export type Refusal = Message | null;
