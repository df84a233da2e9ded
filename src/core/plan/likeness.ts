/** How well a page suits as the source of a link to another. */
import { addressAt, factAt } from '../snapshot';
import { addressParts } from '../url';
import type { View } from '../view';
import { mayHaveAny, stems } from '../words';

/** The words that name a page: its heading or its title, whichever is shorter. */
export const nameOf = (view: View, page: number): string =>
  [factAt(view, 'h1', page), factAt(view, 'title', page)]
    .filter((text) => typeof text === 'string' && text !== '')
    .map(String)
    .sort((a, b) => a.length - b.length)[0] ?? '';

/** So many pages tell how rare a word is. */
const SAMPLE = 1000;

/**
 * How much of what names a page the content of another has: 0 for none of its words, 1 for all. Words count by how few
 * pages have them.
 */
export function wordLikeness(view: View): (source: number, target: number) => number {
  const { offsets, bytes } = view.wordFilters;
  const filterOf = (page: number) => bytes.subarray(offsets[page], offsets[page + 1]);
  const sample: Uint8Array[] = [];
  const step = Math.max(1, Math.floor(view.count / SAMPLE));
  for (let page = 0; page < view.count; page += step) if (filterOf(page).length > 0) sample.push(filterOf(page));
  const weights = new Map<string, number>();
  function weightOf(word: string): number {
    const known = weights.get(word);
    if (known !== undefined) return known;
    const having = sample.reduce((sum, filter) => sum + Number(mayHaveAny(filter, [word])), 0);
    const weight = Math.log(1 + sample.length / Math.max(1, having));
    weights.set(word, weight);
    return weight;
  }
  /** The words of the target that was asked for last. */
  let last = -1;
  let weighed: [word: string, weight: number][] = [];
  let whole = 0;
  return (source, target) => {
    if (target !== last) {
      weighed = [...stems(nameOf(view, target))].map((word) => [word, weightOf(word)]);
      whole = weighed.reduce((sum, [, weight]) => sum + weight, 0);
      last = target;
    }
    const filter = filterOf(source);
    if (whole === 0 || filter.length === 0) return 0;
    return weighed.reduce((sum, [word, weight]) => sum + (mayHaveAny(filter, [word]) ? weight : 0), 0) / whole;
  };
}

/** How many folders the addresses of two pages have in common; pages of two hosts have none. */
export function commonFolders(view: View): (source: number, target: number) => number {
  const folders: (string[] | undefined)[] = [];
  const foldersOf = (page: number) =>
    (folders[page] ??= (({ host, path }) => [host, ...path.split('/').slice(1, -1)])(
      addressParts(addressAt(view, page)),
    ));
  return (source, target) => {
    const [a, b] = [foldersOf(source), foldersOf(target)];
    let common = 0;
    while (common < a.length && a[common] === b[common]) common++;
    return common;
  };
}
