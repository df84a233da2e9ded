/** Links that people count: those from running text, and those that search crawlers follow. */
import { BESIDE, CLICK_KIND, isContentPlacement, isRunningText, templatePages } from '../links';
import type { Base, ColumnReader } from '../snapshot';
import { nofollowRels } from './readers';

type TextBase = Pick<Base, 'count' | 'links' | 'phrases'> & { column: ColumnReader<'html' | 'page_nofollow'> };

/** Counts for each page, one after the other: links of a page to itself do not count. */
export interface TextLinkCounts {
  /** Occurrences of links from running text, and different pages that have one. */
  textLinksIn: Int32Array;
  pagesLinkingText: Int32Array;
  /** Different pages with a link that is followed. */
  pagesLinkingFollowed: Int32Array;
}

/**
 * The links in running text: click links in main content whose block holds sentences and has words besides the link.
 * What so many pages have with the same target, words and path that their template must have it is not among them.
 */
function textLinksOf({ count, links, phrases, column }: TextBase): Uint8Array {
  const { offsets, kind, target, anchor, above, placement, marks } = links;
  // What a draft adds stands in no element yet.
  const isText = phrases.map((path) => path === '' || (path.startsWith('body') && isRunningText(path)));
  const found = new Uint8Array(kind.length);
  /** How many pages have each link; equal links of one page count once. */
  const pages = new Map<string, { pages: number; last: number }>();
  const keyOf = (link: number) => `${target[link]} ${anchor[link]} ${above[link]}`;
  for (let page = 0; page < count; page++)
    for (let link = offsets[page]; link < offsets[page + 1]; link++) {
      const isOne =
        kind[link] === CLICK_KIND &&
        target[link] < count &&
        target[link] !== page &&
        (marks[link] & BESIDE) !== 0 &&
        isContentPlacement[placement[link]] &&
        isText[above[link]];
      if (!isOne) continue;
      found[link] = 1;
      const key = keyOf(link);
      const known = pages.get(key);
      if (!known) pages.set(key, { pages: 1, last: page });
      else if (known.last !== page) Object.assign(known, { pages: known.pages + 1, last: page });
    }
  const read = column('html').reduce((sum, one) => sum + Number(one === 1), 0);
  const most = templatePages(read);
  for (let link = 0; link < found.length; link++)
    if (found[link] && pages.get(keyOf(link))!.pages >= most) found[link] = 0;
  return found;
}

/** Counts links from running text, and pages with links that are followed. */
export function countTextLinks(base: TextBase): TextLinkCounts {
  const { count, links, phrases, column } = base;
  const { offsets, kind, target, rel } = links;
  const isText = textLinksOf(base);
  const nofollow = nofollowRels(phrases);
  const pageNofollow = column('page_nofollow');
  const counts = [0, 1, 2].map(() => new Int32Array(count));
  const [textLinksIn, pagesLinkingText, pagesLinkingFollowed] = counts;
  // The last page that counted for each target.
  const lastText = new Int32Array(count).fill(-1);
  const lastFollowed = new Int32Array(count).fill(-1);
  for (let page = 0; page < count; page++)
    for (let link = offsets[page]; link < offsets[page + 1]; link++) {
      const to = target[link];
      if (kind[link] !== CLICK_KIND || to >= count || to === page) continue;
      if (isText[link]) {
        textLinksIn[to]++;
        if (lastText[to] !== page) pagesLinkingText[to]++;
        lastText[to] = page;
      }
      if (pageNofollow[page] === 1 || nofollow[rel[link]] === 1) continue;
      if (lastFollowed[to] !== page) pagesLinkingFollowed[to]++;
      lastFollowed[to] = page;
    }
  return { textLinksIn, pagesLinkingText, pagesLinkingFollowed };
}
