/**
 * How well words fit a page: the part of them, by how rare they are, that its title, heading, description and address
 * have, half of what only its text has; and which page of the site they fit better.
 */
import { INDEXABLE } from '../facts';
import { languageOf } from '../language';
import { textAt } from '../snapshot';
import type { View } from '../view';
import { mayHaveAny, stems } from '../words';

/** Pages with a word in their name that are compared for it. */
const MOST_COMPARED = 300;
/** So much better another page has to fit before it is named. */
const CLEARLY = 0.4;
const ONLY_TEXT = 0.5;

export interface Fit {
  /** From 0 to 1; −1 for words that cannot be compared. */
  fit: number;
  /** The page whose name fits clearly better; −1 without. */
  better: number;
}

/** Reads the names of all pages once, and judges words by them. */
export function wordFit(view: View): (words: string, page: number) => Fit {
  const { wordFilters, count } = view;
  const verdict = view.column('verdict');
  const names: (Set<string> | null)[] = [];
  const titled = new Map<string, number[]>();
  const languages = Array.from({ length: count }, (_, page) => languageOf(textAt(view, 'language', page)));
  let named = 0;
  const pagesOfStem = new Map<string, number>();
  for (let page = 0; page < count; page++) {
    const [title, h1, description, path] = (['title', 'h1', 'description', 'path'] as const).map(
      (name) => textAt(view, name, page) ?? '',
    );
    if (!title && !h1) {
      names.push(null);
      continue;
    }
    named++;
    const own = stems(`${title} ${h1}`, languages[page]);
    const whole = stems(`${title} ${h1} ${description} ${path.replace(/[^\p{L}\p{N}]+/gu, ' ')}`, languages[page]);
    names.push(whole);
    for (const stem of whole) pagesOfStem.set(stem, (pagesOfStem.get(stem) ?? 0) + 1);
    if (verdict[page] !== INDEXABLE) continue;
    for (const stem of own) {
      const pages = titled.get(stem);
      if (!pages) titled.set(stem, [page]);
      else pages.push(page);
    }
  }
  const weightOf = (stem: string) => Math.log(1 + named / (1 + (pagesOfStem.get(stem) ?? 0)));
  const filterOf = (page: number) =>
    wordFilters.bytes.subarray(wordFilters.offsets[page], wordFilters.offsets[page + 1]);

  function fitOf(said: readonly (readonly [stem: string, weight: number])[], page: number, withText: boolean): number {
    const [name, filter] = [names[page], filterOf(page)];
    let [sum, whole] = [0, 0];
    for (const [stem, weight] of said) {
      whole += weight;
      if (name?.has(stem)) sum += weight;
      else if (withText && filter.length > 0 && mayHaveAny(filter, [stem])) sum += ONLY_TEXT * weight;
    }
    return whole === 0 ? -1 : sum / whole;
  }

  return (words, page) => {
    const said = [...stems(words, languages[page])].map((stem) => [stem, weightOf(stem)] as const);
    const fit = names[page] === null ? -1 : fitOf(said, page, true);
    if (fit < 0) return { fit, better: -1 };
    let [better, most] = [-1, fit + CLEARLY];
    const seen = new Set<number>([page]);
    for (const [stem] of [...said].sort(([, a], [, b]) => b - a))
      for (const other of titled.get(stem) ?? []) {
        if (seen.size > MOST_COMPARED) break;
        if (seen.has(other) || languages[other] !== languages[page]) continue;
        seen.add(other);
        const value = fitOf(said, other, false);
        if (value >= most) [better, most] = [other, value + 1e-9];
      }
    return { fit, better };
  };
}
