/** How alike the texts of two pages are in their words: the cosine of their TF-IDF vectors (Salton & Buckley, 1988). */
import { pageWords } from '../textIndex';
import type { TextIndex } from '../textIndex';

/** A way to compare many pages with one. */
export function likenessTo(index: TextIndex): (target: number) => (page: number) => number {
  const words = pageWords();
  const stems = index.pagesOfStem.length;
  const counts = new Uint16Array(stems);
  const weights = new Float32Array(stems);
  const idf = Float32Array.from(index.pagesOfStem, (pages) => Math.log(index.pages / Math.max(1, pages)));
  const met: number[] = [];
  let weighed: number[] = [];
  /** Counts the words of a page. @returns false when its text is not kept */
  function count(page: number): boolean {
    met.length = 0;
    if (!index.read(page, words)) return false;
    for (let i = 0; i < words.words; i++) {
      const stem = index.stemOfForm[words.form[i]];
      if (counts[stem]++ === 0) met.push(stem);
    }
    return true;
  }
  const weightOf = (stem: number) => (1 + Math.log(counts[stem])) * idf[stem];
  const clear = () => {
    for (const stem of met) counts[stem] = 0;
  };
  return (target) => {
    for (const stem of weighed) weights[stem] = 0;
    const isKnown = count(target);
    let sum = 0;
    for (const stem of met) {
      weights[stem] = weightOf(stem);
      sum += weights[stem] ** 2;
    }
    weighed = [...met];
    clear();
    const norm = Math.sqrt(sum);
    return (page) => {
      if (!isKnown || norm === 0 || !count(page)) return 0;
      let [dot, square] = [0, 0];
      for (const stem of met) {
        const weight = weightOf(stem);
        dot += weight * weights[stem];
        square += weight * weight;
      }
      clear();
      return square === 0 ? 0 : dot / (norm * Math.sqrt(square));
    };
  };
}
