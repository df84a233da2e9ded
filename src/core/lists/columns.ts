/** The columns of the lists: of pages, of links, and of what either is grouped into. */
import { changeFacts, columnNames, comparedColumns, factNames, linkFacts, pageFacts } from '../facts';
import type { ChangeFactName, ComparedColumn, Fact, FactName, LinkFactName } from '../facts';
import { placements } from '../links';
import type { ListColumn } from './column';
import { importColumn } from './importColumns';

export type { ListColumn } from './column';

/**
 * `edits` groups links that one edit mends, `anchors` those of the same words and target, `hosts` those that lead to
 * the same host; `groups` groups pages by one of their facts. `changes` are the pages of two crawls, `changed_links`
 * the links that came and went between them, and `changed_edits` the edits that these come of.
 */
export const listNames = [
  'pages',
  'links',
  'edits',
  'anchors',
  'hosts',
  'groups',
  'changes',
  'changed_links',
  'changed_edits',
] as const;
export type ListName = (typeof listNames)[number];

/** What the selection of a list is about. */
export const listedOf = (list: ListName): 'pages' | 'links' =>
  list === 'pages' || list === 'groups' || list === 'changes' ? 'pages' : 'links';

/** Whether a list can only be made beside an earlier crawl. */
export const isListAcross = (list: ListName): boolean =>
  list === 'changes' || list === 'changed_links' || list === 'changed_edits';

const ofPages = (name: FactName): ListColumn => ({ name, ...pageFacts[name] });
const ofLinks = (name: LinkFactName): ListColumn => ({ name, ...linkFacts[name] });
const ofChanges = (name: ChangeFactName): ListColumn => ({ name, ...changeFacts[name] });

/** A compared fact as the earlier crawl tells it. */
export const thenColumn = (fact: ComparedColumn) => `was_${fact}` as const;
const ofThen = (fact: ComparedColumn): ListColumn => {
  const column = ofPages(fact);
  return {
    ...column,
    name: thenColumn(fact),
    label: `${column.label} then`,
    meaning: `In the earlier crawl: ${column.meaning}`,
  };
};

/** Whether a link has come or gone. */
const linkChange: ListColumn = {
  name: 'change',
  type: 'choice',
  label: 'Change',
  meaning: 'Whether the link has been added or removed since the earlier crawl.',
  values: ['removed', 'added'],
  sort: 'low',
};

/** A number that is counted for each row of groups. */
const counted = (name: string, label: string, meaning: string, unit?: Fact['unit']): ListColumn => ({
  name,
  type: 'number',
  unit,
  label,
  meaning,
  sort: 'high',
});

const links = counted('links', 'Links', 'How many links there are in the group.', 'links');
const pages = counted('pages', 'On pages', 'How many different pages these links are on.', 'pages');
const example: ListColumn = { ...ofLinks('source'), label: 'Example', meaning: 'The first page with such a link.' };

const linkFactsTold: LinkFactName[] = [
  'source',
  'target',
  'anchor',
  'placement',
  'target_verdict',
  'target_status',
  'ends_at',
  'faults',
  'kind',
  'followed',
  'rel',
  'line',
  'column',
  'element',
  'above',
  'fragment',
  'source_share',
];
const linkColumns = linkFactsTold.map(ofLinks);

/** What is told of links that are one edit. */
const editColumns = [
  ofLinks('target'),
  ofLinks('anchor'),
  ofLinks('placement'),
  pages,
  links,
  ofLinks('above'),
  ofLinks('target_verdict'),
  ofLinks('target_status'),
];

export const listColumns: Record<ListName, readonly ListColumn[]> = {
  pages: factNames.map(ofPages),
  links: linkColumns,
  edits: [...editColumns, ofLinks('ends_at'), example, ofLinks('line'), ofLinks('faults'), ofLinks('kind')],
  anchors: [
    ofLinks('anchor'),
    ofLinks('target'),
    links,
    pages,
    {
      name: 'placements',
      type: 'set',
      label: 'Placements',
      meaning: 'The landmarks that these links are in.',
      values: placements,
      sort: 'high',
    },
    ofLinks('faults'),
    ofLinks('target_verdict'),
    counted('followed_links', 'Followed', 'How many of these links a search crawler follows.', 'links'),
    example,
  ],
  hosts: [
    { name: 'host', type: 'text', label: 'Host', meaning: 'Host that the links lead to.', as: 'code', sort: 'low' },
    links,
    pages,
    counted('targets', 'Addresses', 'Different addresses of the host that are linked to.', 'addresses'),
    counted('checked', 'Checked', 'How many of them were checked.', 'addresses'),
    counted('failing', 'Failing', 'How many of them gave an error or no answer.', 'addresses'),
    counted('unfollowed', 'Not followed', 'How many of the links a search crawler does not follow.', 'links'),
    example,
  ],
  groups: [
    { name: 'value', type: 'text', label: 'Value', meaning: 'The value that the pages share.', sort: 'low' },
    counted('pages', 'Pages', 'How many pages have this value.', 'pages'),
    counted('indexable', 'Indexable', 'How many of them may be indexed.', 'pages'),
    counted('median_depth', 'Median depth', 'Median depth of those that have a route.', 'clicks'),
    {
      name: 'share',
      type: 'ratio',
      unit: '×',
      label: 'Share',
      meaning: 'Share of all pages of the group together.',
      sort: 'high',
    },
    counted('no_route', 'No route', 'How many of them no route leads to.', 'pages'),
    { ...ofPages('url'), label: 'Example', meaning: 'The first page of the group by address.' },
  ],
  changes: [
    ...(Object.keys(changeFacts) as ChangeFactName[]).map(ofChanges),
    ...comparedColumns.map(ofThen),
    ...columnNames.map(ofPages),
  ],
  changed_links: [linkChange, ...linkColumns],
  changed_edits: [linkChange, ...editColumns, example],
};

/** The column of a list with this name. */
export const columnOf = (list: ListName, name: string): ListColumn | undefined =>
  listColumns[list].find((column) => column.name === name) ?? (list === 'pages' ? importColumn(name) : undefined);
