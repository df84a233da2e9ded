/** Words that are looked for in the texts of a crawl. */
import { evaluate, numbersOf, parseSelection, quote } from '$core/selection';
import { factAt, pageOf } from '$core/snapshot';
import type { View } from '$core/view';
import { searchedWords } from '$core/textIndex';
import { appDatabase, hitsOn } from '$server/index';
import type { CrawlState } from '$server/index';
import { named } from './listed';

const SIZE = 40;
const MOST = 400;

/** What is looked for: words, and pages that link to an address apart. */
export function searchOf(query: URLSearchParams) {
  const [words, without] = ['words', 'without'].map((name) => (query.get(name) ?? '').trim());
  const size = Math.min(MOST, Math.max(SIZE, Number(query.get('size')) || SIZE));
  const select = words && `text has ${quote(words)}${without && ` and not links to (url = ${quote(without)})`}`;
  return { words, without, size, select };
}

/** The first pages that have the words, each with the first sentence in which they stand. */
export async function searched(crawl: CrawlState, view: View, query: URLSearchParams) {
  const { words, without, size, select } = searchOf(query);
  const asked = { words, without, size, select, total: 0, fault: '', isUnknown: false, hits: [] };
  const index = view.texts?.index;
  if (words === '' || !index) return asked;
  const parsed = parseSelection(select);
  const wanted = searchedWords(words);
  if (!parsed.ok || typeof wanted === 'string') return { ...asked, fault: parsed.ok ? '' : parsed.fault.message };
  const pages = [...numbersOf(evaluate(view, parsed.selection))];
  const shown = pages.slice(0, size);
  const snippets = await hitsOn(appDatabase(), crawl, { view, index }, wanted, shown);
  return {
    ...asked,
    total: pages.length,
    isUnknown: without !== '' && pageOf(view, without) < 0,
    hits: shown.flatMap((page, i) => {
      const snippet = snippets[i];
      const depth = factAt(view, 'depth', page) as number | null;
      return snippet ? [{ ...named(view, page), depth, ...snippet }] : [];
    }),
  };
}
