/** What the lists are called, what they are grouped by, and selections that are asked for often. */
import type { ListName } from '$core/lists/columns';
import { depthFact, noRouteSelection } from '$core/reach/reach';
import type { Reader } from '$core/reach/reach';

export const listTabs: readonly { list: ListName; label: string }[] = [
  { list: 'pages', label: 'Pages' },
  { list: 'links', label: 'Links' },
  { list: 'anchors', label: 'Anchors' },
  { list: 'hosts', label: 'Outside hosts' },
];

/** The lists of the screen Change. */
export const changeTabs: typeof listTabs = [
  { list: 'changes', label: 'Pages' },
  { list: 'changed_links', label: 'Links' },
];

/** Selections across crawls that are asked for often. */
export const commonChanges: readonly { label: string; select: string }[] = [
  { label: 'All that changed', select: 'not same' },
  { label: 'No longer indexable', select: 'was (indexable) and verdict != indexable and verdict != unvisited' },
  { label: 'Lost its route', select: 'was (reached) and not reached and not removed' },
  { label: 'Deeper', select: 'depth_change > 0' },
  { label: 'Lost half of its share', select: 'was (share > 1) and share_change < -0.5' },
  { label: 'Title changed', select: 'changed(title)' },
];

export const commonLinkChanges: readonly { label: string; select: string }[] = [
  { label: 'Added', select: 'added' },
  { label: 'Removed', select: 'removed' },
  { label: 'To what cannot be indexed', select: 'to (not indexable)' },
];

/** Selections that are asked for often, in the words of the reader. */
export const commonSelections = (over: 'pages' | 'links', reader: Reader): { label: string; select: string }[] =>
  over === 'pages'
    ? [
        { label: 'Indexable', select: 'indexable' },
        { label: 'Deeper than 3', select: `${depthFact(reader)} > 3` },
        { label: 'No route', select: noRouteSelection(reader) },
        { label: 'No route, in a sitemap', select: `${noRouteSelection(reader)} and seen in sitemap` },
        { label: 'Only through paging', select: 'only_paging' },
        { label: 'Broken', select: 'verdict in (broken, failing, unanswered)' },
      ]
    : [
        { label: 'Broken', select: 'kind = click and to (verdict in (broken, failing, unanswered))' },
        { label: 'To redirects', select: 'kind = click and to (verdict = redirect)' },
        { label: 'Not followed', select: 'kind = click and not followed and not external' },
        { label: 'Outside', select: 'kind = click and external' },
        { label: 'Without words', select: 'faults has empty' },
      ];

export const groupings: Record<'pages' | 'links' | 'changed' | 'none', { value: string; label: string }[]> = {
  none: [],
  pages: [
    { value: 'pages', label: 'each page' },
    { value: 'section', label: 'section' },
    { value: 'template', label: 'template' },
    { value: 'verdict', label: 'verdict' },
    { value: 'depth', label: 'depth' },
    { value: 'host', label: 'host' },
    { value: 'language', label: 'language' },
    { value: 'status', label: 'status' },
    { value: 'canonical', label: 'canonical' },
    { value: 'redirect_to', label: 'redirect' },
    { value: 'content_hash', label: 'same content' },
    { value: 'robots_rule', label: 'robots.txt rule' },
  ],
  links: [
    { value: 'links', label: 'each link' },
    { value: 'edits', label: 'one edit' },
  ],
  changed: [
    { value: 'changed_links', label: 'each link' },
    { value: 'changed_edits', label: 'one edit' },
  ],
};

const nouns: Record<ListName, [one: string, many: string]> = {
  pages: ['page', 'pages'],
  links: ['link', 'links'],
  edits: ['edit', 'edits'],
  anchors: ['anchor', 'anchors'],
  hosts: ['host', 'hosts'],
  groups: ['group', 'groups'],
  changes: ['page', 'pages'],
  changed_links: ['link', 'links'],
  changed_edits: ['edit', 'edits'],
};
/** What the rows of a list are. */
export const nounFor = (list: ListName, n: number) => nouns[list][n === 1 ? 0 : 1];
