/** Many phrases, looked for together in one pass over the words of a page. */
import { IS_APART } from '../textIndex';
import type { PageWords, TextIndex } from '../textIndex';

/** Small words that may stand between two words of a phrase. */
const MOST_BETWEEN = 2;
/** Stems have numbers below this. */
const STEMS = 2 ** 22;

export interface Trie {
  /** Adds a phrase by its stems, small words left out. @returns the number of its end, the same for the same stems */
  add: (stems: readonly number[]) => number;
  /**
   * The ends of all phrases that begin with a word of a page, the longest last.
   * @param to the words after the last one of the block
   * @param onEnd receives the end and the last word of the phrase
   */
  at: (words: PageWords, from: number, to: number, onEnd: (end: number, last: number) => void) => void;
  /** By form whether any phrase begins with it: most words are passed over with one look. */
  beginnings: () => Uint8Array;
  /** The end of a phrase; −1 when it was not added. */
  find: (stems: readonly number[]) => number;
}

export function phraseTrie({ stemOfForm, isSmall }: Pick<TextIndex, 'stemOfForm' | 'isSmall'>): Trie {
  /** By node and stem the next node. */
  const next = new Map<number, number>();
  /** By node the number of the phrase that ends there, and −1. */
  const endAt: number[] = [-1];
  let ends = 0;
  /** Stems with which phrases begin. */
  const begins = new Set<number>();
  return {
    add(stems) {
      let node = 0;
      begins.add(stems[0]);
      for (const stem of stems) {
        const key = node * STEMS + stem;
        let then = next.get(key);
        if (then === undefined) next.set(key, (then = endAt.push(-1) - 1));
        node = then;
      }
      if (endAt[node] < 0) endAt[node] = ends++;
      return endAt[node];
    },
    beginnings: () => isSmall.map((small, form) => Number(small === 0 && begins.has(stemOfForm[form]))),
    find(stems) {
      let node: number | undefined = 0;
      for (const stem of stems) {
        node = next.get(node * STEMS + stem);
        if (node === undefined) return -1;
      }
      return endAt[node];
    },
    at({ form, flags }, from, to, onEnd) {
      const first = stemOfForm[form[from]];
      if (isSmall[form[from]] || !begins.has(first)) return;
      let node = next.get(first)!;
      let last = from;
      for (;;) {
        if (endAt[node] >= 0) onEnd(endAt[node], last);
        let at = last + 1;
        while (at < to && at - last <= MOST_BETWEEN && isSmall[form[at]] && !(flags[at] & IS_APART)) at++;
        if (at >= to || flags[at] & IS_APART || isSmall[form[at]]) return;
        const then = next.get(node * STEMS + stemOfForm[form[at]]);
        if (then === undefined) return;
        node = then;
        last = at;
      }
    },
  };
}
