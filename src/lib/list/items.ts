/** One of the things in an item list. */
export interface Item {
  /** What the address of the screen calls it. */
  item: string;
  label: string;
  /** Of a page its title; null for words. */
  more: string | null;
  /** What it is ordered by, and what else is to be known. */
  figure: string;
  note: string;
  isDone?: boolean;
}
