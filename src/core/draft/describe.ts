/** Edits in words: for the screen of a draft, and for whoever makes them on the website. */
import type { Edit } from './edit';
import { isFolder } from './move';

const quoted = (words: string) => (words ? ` “${words}”` : '');
const placed = (placement: string) => (['', 'none', 'main'].includes(placement) ? '' : ` in the ${placement}`);

const texts: Record<Edit['op'], (edit: Edit) => string> = {
  add_link: ({ anchor, target, placement, value }) =>
    `Add a link${quoted(anchor)} to ${target}${value ? ', on these words of the content' : placed(placement)}.`,
  remove_link: ({ anchor, target, placement }) => `Remove the link${quoted(anchor)} to ${target}${placed(placement)}.`,
  reword_link: ({ anchor, target, placement, value }) =>
    `Change the words of the link${quoted(anchor)} to ${target}${placed(placement)} to “${value}”.`,
  retarget_link: ({ anchor, target, placement, value }) =>
    `Let the link${quoted(anchor)} to ${target}${placed(placement)} point at ${value}.`,
  add_page: ({ value }) => `Create this page${value ? ` with the title “${value}”` : ''}.`,
  remove_page: ({ value }) =>
    /^\d*$/.test(value) ? `Remove this page; answer ${value || '404'}.` : `Remove this page; redirect to ${value}.`,
  move_page: ({ source, target, value }) =>
    isFolder(source)
      ? `Move all pages of this folder to ${target} and redirect them there${value === 'links' ? '; correct all links to them' : ''}.`
      : `Move this page to ${target} and redirect there${value === 'links' ? '; correct all links to it' : ''}.`,
  redirect: ({ target }) => `Redirect to ${target} (301).`,
  canonical: ({ target }) => (target ? `Set the canonical to ${target}.` : 'Remove the canonical.'),
  noindex: () => 'Set noindex.',
  index: () => 'Remove noindex.',
  nofollow: () => 'Set nofollow for the whole page.',
  follow: () => 'Remove nofollow from the whole page.',
  robots: () => 'Replace robots.txt.',
};

/** What to do, as one sentence about the page that is edited. */
export const editText = (edit: Edit): string => texts[edit.op](edit);

/** The operations as a list of choices names them. */
export const opLabels: Record<Edit['op'], string> = {
  add_link: 'Add a link',
  remove_link: 'Remove a link',
  reword_link: 'Reword a link',
  retarget_link: 'Change the target of a link',
  add_page: 'Add a page',
  remove_page: 'Remove a page',
  move_page: 'Move a page or a folder',
  redirect: 'Redirect',
  canonical: 'Set a canonical',
  noindex: 'Set noindex',
  index: 'Remove noindex',
  nofollow: 'Set nofollow',
  follow: 'Remove nofollow',
  robots: 'Replace robots.txt',
};
