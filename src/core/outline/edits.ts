/** An outline as edits of a draft: its pages, each linked from its parent. */
import { editOf } from '../draft';
import type { Edit } from '../draft';
import type { Outline } from './outline';

/**
 * Pages at the top are linked from the start, as their address says that they belong to it.
 * @param start the address of the start page
 */
export function editsOfOutline({ pages }: Outline, start: string): Edit[] {
  const top = pages.some(({ address }) => address === start) ? [] : [editOf('add_page', start)];
  const added = pages.map(({ address, title }) => editOf('add_page', address, { value: title }));
  const linked = pages.flatMap(({ address, title, parent }) => {
    const from = parent < 0 ? start : pages[parent].address;
    return from === address ? [] : [editOf('add_link', from, { target: address, anchor: title, placement: 'main' })];
  });
  return [...top, ...added, ...linked];
}
