/** What a map is drawn of, in pixels of a paper of its own, whatever draws it. */

import type { Colouring } from './colouring';

/** A group of pages, as a box with its name. */
export interface Box {
  /** Unique on its map, and the same as long as the group is. */
  id: string;
  x: number;
  y: number;
  width: number;
  height: number;
  /** What the group is called by: a section, a folder, an address; null for those left over. */
  name: string | null;
  /** In how many groups its pages are left together, where it stands for several. */
  folded?: number;
  pages: number;
  /** Of its pages, how many have each category of the colouring. */
  parts: number[];
  /** What holds its pages; '' where the language has no words for them. */
  select: string;
  /** The page that it is, where it stands for one. */
  page?: number;
  /** Its pages have no route. */
  isLost?: boolean;
  /** Whether there is more within than is drawn. */
  opens?: boolean;
  /** Whether its page is a gate. */
  isGate?: boolean;
  /** A folder that has no page of its own. */
  isBare?: boolean;
}

/** A page. */
export interface Dot {
  x: number;
  y: number;
  radius: number;
  page: number;
  category: number;
  isLost: boolean;
}

/** A line of text beside boxes. */
export interface Caption {
  x: number;
  y: number;
  width: number;
  depth: number | null;
  isOpenEnded?: boolean;
  pages: number;
}

/** Links between two boxes, together. */
export interface Flow {
  from: string;
  to: string;
  links: number;
}

/** A line that joins the box of a page with that of the page before it. */
export interface Joint {
  from: string;
  to: string;
}

export interface Scene {
  width: number;
  height: number;
  boxes: Box[];
  dots: Dot[];
  captions: Caption[];
  joints: Joint[];
}

/** What a map is laid out with. */
export interface Drawing {
  colouring: Colouring;
  /** By page a number that its size tells; null for one size. */
  sizes: ArrayLike<number> | null;
  /** Of the paper, in pixels. */
  width: number;
  height: number;
}

/** How many of some pages have each category. */
export function partsOf(pages: Iterable<number>, of: Uint8Array, categories: number): number[] {
  const parts = new Array<number>(categories).fill(0);
  for (const page of pages) parts[of[page]]++;
  return parts;
}

/** Radii by a number of each page, between bounds: the area follows the rank, so that one giant hides no other. */
export function radiiBy(values: ArrayLike<number> | null, pages: Uint32Array, least: number, most: number) {
  const radii = new Map<number, number>();
  const middle = (least + most) / 2;
  if (!values) {
    for (const page of pages) radii.set(page, middle);
    return radii;
  }
  const ascending = [...pages].sort((a, b) => values[a] - values[b]);
  let rank = 0;
  ascending.forEach((page, i) => {
    if (i > 0 && values[page] !== values[ascending[i - 1]]) rank = i;
    const part = (rank / Math.max(1, ascending.length - 1)) ** 4;
    radii.set(page, Math.sqrt(least ** 2 + part * (most ** 2 - least ** 2)));
  });
  return radii;
}
