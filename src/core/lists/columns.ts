/** The columns of the lists: of pages, of links, and of what either is grouped into. */
import { linkFaults } from '../links';
import { linkFacts, placements } from '../selection/catalogue';
import { factNames, facts } from '../snapshot/facts';
import type { FactType } from '../snapshot/facts';
import { verdicts } from '../verdict';

/**
 * `edits` groups links that one edit mends, `anchors` those of the same words and target, `hosts` those that lead to the
 * same host; `groups` groups pages by one of their facts.
 */
export const listNames = ['pages', 'links', 'edits', 'anchors', 'hosts', 'groups'] as const;
export type ListName = (typeof listNames)[number];

/** What the selection of a list is about. */
export const listedOf = (list: ListName): 'pages' | 'links' =>
  list === 'pages' || list === 'groups' ? 'pages' : 'links';

export interface ListColumn {
  name: string;
  label: string;
  type: FactType;
  values?: readonly string[];
  /** How its cells are shown, where the type does not tell. */
  as?: 'address' | 'verdict' | 'code';
}

const addresses = new Set(['url', 'redirect_to', 'canonical', 'breadcrumb_parent']);

const pageColumn = (name: (typeof factNames)[number]): ListColumn => ({
  name,
  ...facts[name],
  ...(addresses.has(name) ? { as: 'address' as const } : name === 'verdict' ? { as: 'verdict' as const } : {}),
});

const source: ListColumn = { name: 'source', label: 'On page', type: 'text', as: 'address' };
const target: ListColumn = { name: 'target', ...linkFacts.target, as: 'address' };
const anchor: ListColumn = { name: 'anchor', ...linkFacts.anchor };
const placement: ListColumn = { name: 'placement', ...linkFacts.placement };
const above: ListColumn = { name: 'above', ...linkFacts.above, as: 'code' };
const kind: ListColumn = { name: 'kind', ...linkFacts.kind };
const verdict: ListColumn = {
  name: 'target_verdict',
  label: 'Target is',
  type: 'choice',
  values: verdicts,
  as: 'verdict',
};
const status: ListColumn = { name: 'target_status', ...linkFacts.target_status };
const endsAt: ListColumn = { name: 'ends_at', label: 'Ends at', type: 'text', as: 'address' };
const faults: ListColumn = { name: 'faults', label: 'Faults', type: 'set', values: linkFaults };
const links: ListColumn = { name: 'links', label: 'Links', type: 'number' };
const pages: ListColumn = { name: 'pages', label: 'On pages', type: 'number' };
const example: ListColumn = { name: 'source', label: 'Example', type: 'text', as: 'address' };
const followed: ListColumn = { name: 'followed', ...linkFacts.followed };

export const listColumns: Record<ListName, readonly ListColumn[]> = {
  pages: factNames.map(pageColumn),
  links: [
    source,
    target,
    anchor,
    placement,
    verdict,
    status,
    endsAt,
    faults,
    kind,
    followed,
    { name: 'rel', ...linkFacts.rel },
    { name: 'line', ...linkFacts.line },
    { name: 'column', label: 'Column', type: 'number' },
    { name: 'element', ...linkFacts.element },
    above,
    { name: 'fragment', ...linkFacts.fragment },
    { name: 'source_share', label: 'Share of the page', type: 'ratio' },
  ],
  edits: [
    target,
    anchor,
    placement,
    pages,
    links,
    above,
    verdict,
    status,
    endsAt,
    example,
    { name: 'line', ...linkFacts.line },
    faults,
    kind,
  ],
  anchors: [
    anchor,
    target,
    links,
    pages,
    { name: 'placements', label: 'Placements', type: 'set', values: placements },
    faults,
    verdict,
    { name: 'followed_links', label: 'Followed', type: 'number' },
    example,
  ],
  hosts: [
    { name: 'host', label: 'Host', type: 'text', as: 'code' },
    links,
    pages,
    { name: 'targets', label: 'Addresses', type: 'number' },
    { name: 'checked', label: 'Checked', type: 'number' },
    { name: 'failing', label: 'Failing', type: 'number' },
    { name: 'unfollowed', label: 'Not followed', type: 'number' },
    example,
  ],
  groups: [
    { name: 'value', label: 'Value', type: 'text' },
    { name: 'pages', label: 'Pages', type: 'number' },
    { name: 'indexable', label: 'Indexable', type: 'number' },
    { name: 'median_depth', label: 'Median depth', type: 'number' },
    { name: 'share', label: 'Share', type: 'ratio' },
    { name: 'lost', label: 'No route', type: 'number' },
    { name: 'url', label: 'Example', type: 'text', as: 'address' },
  ],
};

/** The column of a list with this name. */
export const columnOf = (list: ListName, name: string): ListColumn | undefined =>
  listColumns[list].find((column) => column.name === name);
