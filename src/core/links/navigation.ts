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
