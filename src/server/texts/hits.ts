/** Words that are looked for in the texts of a crawl, with the sentences in which they stand. */
import { searchPages, snippetOf } from '$core/textIndex';
import type { Snippet, TextIndex } from '$core/textIndex';
import type { View } from '$core/view';
import type { Crawl } from '../crawls';
import type { Database } from '../database';
import { blockReader } from './places';

/** For each of some pages that have words the first place where they stand; null where the source is not kept. */
export async function hitsOn(
  db: Database,
  row: Pick<Crawl, 'id' | 'siteId' | 'analysedAt'>,
  { view, index }: { view: View; index: TextIndex },
  words: readonly string[],
  pages: readonly number[],
): Promise<(Snippet | null)[]> {
  const blocksOf = blockReader(db, row, view);
  const found: (Snippet | null)[] = [];
  for (const [i, hit] of searchPages(index, words, pages).entries()) {
    const blocks = hit && (await blocksOf(pages[i]));
    const language = index.languages[index.languageNumber(pages[i])];
    found.push(blocks ? snippetOf(blocks, hit, language) : null);
  }
  return found;
}
