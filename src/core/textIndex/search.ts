/** Finds words in the texts of a site. */
import { blockKinds } from '../html';
import { caseless } from '../words';
import type { TextIndex } from './open';
import { MAX_FORM } from './textWords';
import { pageWords } from './tokens';
import type { PageWords } from './tokens';

/** Where a phrase stands in a page: the block, and the first and last word in it. */
export interface Hit {
  block: number;
  first: number;
  last: number;
}

/** By word of a phrase, the forms that are it: whole words, but that the last one may go on. */
function formsOf({ forms, formText }: TextIndex, words: readonly string[]): Uint8Array[] {
  const wanted = words.map((word) => word.slice(0, MAX_FORM));
  const found = wanted.map(() => new Uint8Array(forms));
  const lastWord = wanted.length - 1;
  for (let form = 0; form < forms; form++) {
    const text = caseless(formText(form));
    wanted.forEach((word, i) => {
      if (i === lastWord ? text.startsWith(word) : text === word) found[i][form] = 1;
    });
  }
  return found;
}

const MOST_KEPT = 50;
const kept = new WeakMap<TextIndex, Map<string, readonly number[]>>();

const TEXT = blockKinds.indexOf('text');

/** The first place in the running text of a page where a phrase stands, else in anything of it; null without. */
const firstHit = (words: PageWords, forms: readonly Uint8Array[]): Hit | null =>
  firstHitIn(words, forms, (kind) => kind === TEXT) ?? firstHitIn(words, forms, (kind) => kind !== TEXT);

function firstHitIn(words: PageWords, forms: readonly Uint8Array[], isWanted: (kind: number) => boolean): Hit | null {
  const [first] = forms;
  for (let block = 0; block < words.blocks; block++) {
    if (!isWanted(words.kind[block])) continue;
    const [start, end] = [words.first[block], words.first[block + 1] - forms.length];
    for (let at = start; at <= end; at++) {
      if (first[words.form[at]] === 0) continue;
      let more = 1;
      while (more < forms.length && forms[more][words.form[at + more]] === 1) more++;
      if (more === forms.length) return { block, first: at - start, last: at - start + more - 1 };
    }
  }
  return null;
}

/**
 * The pages in whose main content some words stand one after the other, whatever signs are between them. Case does not
 * count, and the last word may go on: `tram` finds trams.
 * @param words as `searchedWords` gives them
 */
export function searchTexts(index: TextIndex, words: readonly string[]): readonly number[] {
  let known = kept.get(index);
  if (!known) kept.set(index, (known = new Map()));
  const key = words.join(' ');
  let pages = known.get(key);
  if (!pages) {
    const forms = formsOf(index, words);
    const into = pageWords();
    pages = forms.every((some) => some.includes(1))
      ? index.pageNumbers.filter((page) => index.read(page, into) && firstHit(into, forms) !== null)
      : [];
    if (known.size === MOST_KEPT) known.delete([...known.keys()][0]);
    known.set(key, pages);
  }
  return pages;
}

/** The first place of some words on each of some pages; null where they are not. */
export function searchPages(index: TextIndex, words: readonly string[], pages: readonly number[]): (Hit | null)[] {
  const forms = formsOf(index, words);
  const into = pageWords();
  return pages.map((page) => (index.read(page, into) ? firstHit(into, forms) : null));
}
