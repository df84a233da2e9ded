/** Which columns of a list a person sees, in which order and how wide: kept in a cookie, so that the first rows fit. */
import { keepsText } from '$core/facts';
import { columnOf, listColumns } from '$core/lists/columns';
import type { ListColumn, ListName } from '$core/lists/columns';
import type { Reader } from '$core/reach/reach';

export interface ShownColumn {
  name: string;
  /** Pixels. */
  width: number;
  /** Stays in sight when the list is moved sideways. */
  pinned: boolean;
}

const defaults: Record<ListName, string> = {
  pages: 'url:300p,depth:64,pages_linking:104,share:68,verdict:176,seen_in:176,status:64,links_out:84',
  links: 'source:240p,target:240,anchor:170,placement:84,target_verdict:150,line:60,followed:76,faults:150',
  edits:
    'target:230p,anchor:170,placement:84,pages:80,links:64,target_verdict:150,ends_at:220,above:260,source:220,line:60',
  anchors: 'anchor:230p,target:240,links:64,pages:80,placements:140,faults:190,target_verdict:150,followed_links:80',
  hosts: 'host:260p,links:64,pages:80,targets:88,checked:80,failing:72,unfollowed:92,source:260',
  groups: 'value:260p,pages:72,indexable:88,median_depth:104,share:76,no_route:80,url:280',
  changes:
    'url:280p,change:84,changed_facts:190,was_verdict:140,verdict:140,share_change:104,depth_change:104,moved_to:220',
  changed_links: 'change:84,source:240,target:240,anchor:170,placement:84,line:60,above:220',
  changed_edits: 'change:84,pages:80,links:64,target:230,anchor:170,placement:84,above:240,source:220',
};

const NARROW = 44;
const WIDE = 900;

/** Width of a column that nobody has set. */
const widthOf = ({ type, as, label }: ListColumn) =>
  as === 'address'
    ? 240
    : as === 'verdict'
      ? 170
      : keepsText(type) || type === 'set'
        ? 160
        : Math.max(64, 24 + label.length * 7);

export const cookieOf = (list: ListName) => `edgemap.columns.${list}`;

function parse(list: ListName, text: string): ShownColumn[] {
  const seen = new Set<string>();
  return text.split(',').flatMap((entry) => {
    const found = /^(\w+):(\d+)(p?)$/.exec(entry);
    if (!found || seen.has(found[1]) || !columnOf(list, found[1])) return [];
    seen.add(found[1]);
    return [{ name: found[1], width: Math.min(WIDE, Math.max(NARROW, Number(found[2]))), pinned: found[3] === 'p' }];
  });
}

function decoded(cookie: string): string {
  try {
    return decodeURIComponent(cookie);
  } catch {
    return '';
  }
}

/** Pixels by which the name of a crawler's depth is longer. */
const LONGER = 36;

/** The same columns read as a search crawler: with its depth in place of a visitor's. */
export const columnsFor = (reader: Reader, columns: readonly ShownColumn[]): ShownColumn[] =>
  reader === 'crawler' ? exchanged(columns, 'depth', 'crawler_depth', LONGER) : [...columns];

/** The opposite of {@link columnsFor}: a choice of columns is kept for both readers. */
export const columnsToSave = (reader: Reader, columns: readonly ShownColumn[]): ShownColumn[] =>
  reader === 'crawler' ? exchanged(columns, 'crawler_depth', 'depth', -LONGER) : [...columns];

/** One column in place of another, unless it is shown too. */
const exchanged = (columns: readonly ShownColumn[], from: string, to: string, wider: number) =>
  columns.some(({ name }) => name === to)
    ? [...columns]
    : columns.map((column) => (column.name === from ? { ...column, name: to, width: column.width + wider } : column));

/** The columns that a cookie names, or those a list begins with; pinned ones come first. */
export function shownColumns(list: ListName, cookie: string | undefined): ShownColumn[] {
  const chosen = parse(list, decoded(cookie ?? ''));
  const shown = chosen.length ? chosen : parse(list, defaults[list]);
  return [...shown.filter(({ pinned }) => pinned), ...shown.filter(({ pinned }) => !pinned)];
}

export const printColumns = (columns: readonly ShownColumn[]) =>
  columns.map(({ name, width, pinned }) => `${name}:${Math.round(width)}${pinned ? 'p' : ''}`).join(',');

/** With one more column at the end, or without it; the last one stays. */
export function toggled(list: ListName, columns: readonly ShownColumn[], name: string): ShownColumn[] {
  if (columns.some((column) => column.name === name))
    return columns.length > 1 ? columns.filter((column) => column.name !== name) : [...columns];
  return [...columns, { name, width: widthOf(columnOf(list, name)!), pinned: false }];
}

/** With a column moved by some places among those that are pinned like it. */
export function moved(columns: readonly ShownColumn[], name: string, by: number): ShownColumn[] {
  const order = [...columns];
  const from = order.findIndex((column) => column.name === name);
  const to = from + by;
  if (!order[to] || order[to].pinned !== order[from].pinned) return order;
  order.splice(to, 0, ...order.splice(from, 1));
  return order;
}

/** What rows need beside the columns that are shown: a page is told by its title and by its reach too. */
export const neededColumns = (list: ListName, columns: readonly ShownColumn[]): string[] => {
  const always = {
    pages: ['url', 'title', 'reach', 'verdict'],
    links: ['source', 'line', 'column'],
    edits: ['source', 'line'],
    anchors: ['source'],
    hosts: ['source'],
    groups: ['url'],
    changes: ['url', 'title', 'change'],
    changed_links: ['source', 'line', 'column', 'change'],
    changed_edits: ['source', 'change'],
  };
  return [...new Set([...columns.map(({ name }) => name), ...always[list]])];
};

/**
 * Columns that are not shown, in the order of their labels.
 * @param imported names of those that imports of the crawl give
 */
export const otherColumns = (list: ListName, columns: readonly ShownColumn[], imported: readonly string[] = []) =>
  [...listColumns[list], ...(list === 'pages' ? imported.map((name) => columnOf(list, name)!) : [])]
    .filter(({ name }) => !columns.some((column) => column.name === name))
    .sort((a, b) => (a.label < b.label ? -1 : 1));
