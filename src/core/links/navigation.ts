/**
 * What is navigation, and not content of a page: what stands in a landmark of its own, in an element whose class says
 * so, or, wherever it stands, on so many pages that their template must have it.
 */
import { placements } from './link';

/** By placement, whether a link stands in the content of its page. */
export const isContentPlacement = placements.map((name) => name === 'main' || name === 'none');

const navigationClass =
  /\.(nav|navbar|navpath|navigation|breadcrumbs?|crumbs?|menu|toc|sidebar|pager|pagination|paging|footer|masthead)([.>]|$)/i;
/** Whether a path of elements leads through one that is around the content of a page, by its usual classes. */
export const isAroundContent = (path: string): boolean => navigationClass.test(path);

const TEMPLATE_PAGES = 20;
const TEMPLATE_PART = 0.2;
/** From how many pages of a site on a link, or the pages that link somewhere, come of a template. */
export const templatePages = (pages: number): number => Math.max(TEMPLATE_PAGES, TEMPLATE_PART * pages);

/** Elements of a line of text: a link in them is in the block around them. */
const inline = new Set(
  'abbr b bdi bdo big cite code data del dfn em font i ins kbd label mark q s samp small span strong sub sup time tt u var'.split(
    ' ',
  ),
);
/** Blocks that hold sentences. List items do not count: many are menus, lists of posts or tables of contents. */
const sentences = new Set(['p', 'dd', 'blockquote', 'figcaption']);

/**
 * Whether a path of elements (`body>main>p>em`) ends in a block of running text. Whether that block has words besides
 * the link is for the link to tell (BESIDE).
 */
export function isRunningText(path: string): boolean {
  if (isAroundContent(path)) return false;
  const names = path.split('>').map((element) => element.split('.', 1)[0]);
  const block = names.findLast((name) => !inline.has(name));
  return block !== undefined && sentences.has(block);
}
