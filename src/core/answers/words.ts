/** What Words says of a site in a sentence. */
import { pagesInNeed } from '../places';
import type { TextIndex } from '../textIndex';
import type { View } from '../view';
import type { Wording } from '../wordings';
import { lost, plural, say } from './pieces';
import type { AnswerPiece } from './pieces';

/** Good places that make a page an easy one. */
const ENOUGH = 3;

/**
 * @param index of the texts; null while there is none
 * @param wanted links from running text that a page should have
 * @param wordings of all pages
 */
export function wordsAnswer(
  view: View,
  index: TextIndex | null,
  wanted: number,
  wordings: readonly Wording[],
): AnswerPiece[] {
  const need = pagesInNeed(view, wanted);
  const select = `indexable and not (depth = 0) and pages_linking_text < ${wanted}`;
  const easy = index ? need.filter((page) => (index.goodPlaces.get(page) ?? 0) >= ENOUGH).length : 0;
  const faulty = wordings.reduce((sum, { faults, occurrences }) => sum + (faults.length ? occurrences : 0), 0);
  const pages = plural(need.length, 'indexable page has', 'indexable pages have');
  const links = plural(wanted, 'link', 'links');
  const first = need.length
    ? say`${lost(need.length, select)} ${pages} fewer than ${wanted} ${links} from running text.`
    : say`Every indexable page has ${wanted} ${links} from running text or more.`;
  const second =
    index && need.length ? say` For ${easy || 'none'} of them there are at least ${ENOUGH} good places for more.` : [];
  const third = faulty
    ? say` ${lost(faulty)} ${plural(faulty, 'link has', 'links have')} faulty words.`
    : say` No link has faulty words.`;
  return [...first, ...second, ...third];
}
