/** The pages that fall short of a goal, before anything is planned for them. */
import { hasBit } from '../selection';
import type { View } from '../view';
import type { PlanCall } from './view';

/** Whether a page is not where it is to be; a goal of fewer links is about no page that lacks one. */
const falls: Record<PlanCall['goal'], (view: View, page: number, amount: number | undefined) => boolean> = {
  within: (view, page, amount = view.count) => {
    const depth = view.column('depth')[page];
    return depth < 0 || depth > amount;
  },
  text: (view, page, amount = 1) => view.column('pages_linking_text')[page] < amount,
  share: (view, page, amount = 1) => view.column('share')[page] < amount,
  links: () => false,
};

/** The wanted pages that need links to reach the goal, in their order. */
export function shortPages(view: View, { goal, amount, wanted, without }: PlanCall): number[] {
  const pages: number[] = [];
  for (let page = 0; page < view.count; page++)
    if (hasBit(wanted, page) && !(without && hasBit(without, page)) && falls[goal](view, page, amount))
      pages.push(page);
  return pages;
}
