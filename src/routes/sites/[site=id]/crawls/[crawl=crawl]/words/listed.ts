/** Rows of the lists beside which one thing is looked at more closely. */
import { addressAt, factAt } from '$core/snapshot';
import type { View } from '$core/view';

/** What the address of the screen asks of a list. */
export interface Asked {
  /** The address of the page, or the words, that are looked at; '' for the first. */
  item: string;
  /** What is looked for in addresses and titles. */
  find: string;
}

/** Rows of a list that are shown. */
const MOST = 500;

export const named = (view: View, page: number) => ({
  address: addressAt(view, page),
  title: factAt(view, 'title', page) as string | null,
});

/** The first rows of those that have what is looked for, and how many do. */
export function listed<T, R extends { address: string; title: string | null }>(
  all: readonly T[],
  find: string,
  rowOf: (one: T) => R,
): { total: number; rows: R[] } {
  if (find === '') return { total: all.length, rows: all.slice(0, MOST).map(rowOf) };
  const wanted = find.toLowerCase();
  const found = all
    .map(rowOf)
    .filter(({ address, title }) => `${address} ${title ?? ''}`.toLowerCase().includes(wanted));
  return { total: found.length, rows: found.slice(0, MOST) };
}
