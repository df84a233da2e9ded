/** What Overview says of the pages that a person has marked as those that matter most. */
import { INDEXABLE } from '../facts';
import type { Thresholds } from '../findings';
import { thousands } from '../numbers';
import { countPages } from '../snapshot';
import type { View } from '../view';
import { lost, plural, say } from './pieces';
import type { AnswerPiece } from './pieces';

/** One sentence; empty where no page of the crawl is a key page. */
export function keyPagesAnswer(view: View, { deepClicks }: Pick<Thresholds, 'deepClicks'>): AnswerPiece[] {
  const { column } = view;
  const [key, verdict, depth, text] = [column('key'), column('verdict'), column('depth'), column('pages_linking_text')];
  const all = countPages(view, (page) => key[page] === 1);
  if (all === 0) return [];
  const count = (test: (page: number) => boolean) => countPages(view, (page) => key[page] === 1 && test(page));
  const told: AnswerPiece[][] = [];
  const add = (pages: number, select: string, one: string, many: string) => {
    if (pages) told.push(say`${lost(pages, `key and ${select}`)} ${plural(pages, one, many)}`);
  };
  add(
    count((page) => verdict[page] !== INDEXABLE),
    'not indexable',
    'may not be indexed',
    'may not be indexed',
  );
  add(
    count((page) => depth[page] < 0),
    'not reached',
    'has no route',
    'have no route',
  );
  add(
    count((page) => depth[page] > deepClicks),
    `depth > ${deepClicks}`,
    `is deeper than ${deepClicks} clicks`,
    `are deeper than ${deepClicks} clicks`,
  );
  add(
    count((page) => depth[page] !== 0 && text[page] === 0),
    'not (depth = 0) and pages_linking_text = 0',
    'has no link from running text',
    'have no link from running text',
  );
  add(
    count((page) => depth[page] !== 0 && text[page] === 1),
    'not (depth = 0) and pages_linking_text = 1',
    'has one',
    'have one',
  );
  const pages = { text: `${thousands(all)} key ${plural(all, 'page', 'pages')}`, select: 'key' };
  if (told.length === 0)
    return say`${pages}: all may be indexed, are within ${deepClicks} clicks, and are linked from the text of several pages.`;
  return say`Of ${pages}, ${told.flatMap((one, i) => (i === 0 ? one : say`${i === told.length - 1 ? ' and ' : ', '}${one}`))}.`;
}
