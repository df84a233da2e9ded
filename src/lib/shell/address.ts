/** The state of a screen lives in the address of the browser, so that any state can be sent to a colleague. */
import { readers } from '$core/reach/reach';
import type { Reader } from '$core/reach/reach';
import { isListAcross, listedOf, listNames } from '$core/lists/columns';
import type { ListName } from '$core/lists/columns';

export interface ScreenState {
  /** Which list is shown, and by which fact its pages are grouped. */
  list: ListName;
  by: string;
  select: string;
  sort: string;
  /** Address of the page whose dossier is open, the part of it that is shown, and the place in its source. */
  page: string;
  part: string;
  at: string;
  reader: Reader;
  /** Which of the pictures of the screen is shown; '' for the first. */
  picture: string;
  /** Of Roll call: the sources that are compared, as `sourcesText` writes them; '' for all. */
  sources: string;
  /** The order of what the picture shows; '' for that by size. */
  order: string;
  /**
   * Which of the things that a picture shows is looked at more closely, such as a cluster or a file; '' for the first.
   */
  item: string;
  /** The crawl that this one is compared with, by its number; '' for the one before. */
  since: string;
  /** How addresses of the earlier crawl become those of this one (src/core/compare/map.ts); '' for not at all. */
  map: string;
  /** What pairs pages beside their addresses, between commas. */
  pair: string;
  /** Of Maps: the facts that colours and sizes tell, the selection that alone is drawn, and how large it is drawn. */
  colour: string;
  size: string;
  only: string;
  zoom: string;
  /** Of Maps: the page with which routes begin, and how trees are drawn. */
  from: string;
  shape: string;
}

/** What belongs to the reader and not to a screen: it stays on the way to another one. */
const kept = ['reader', 'since', 'map', 'pair'] as const;

const oneOf = <T extends string>(values: readonly T[], value: string | null): T =>
  values.includes(value as T) ? (value as T) : values[0];

/** What screens show when their address says nothing. */
const beginnings: Record<string, Partial<ScreenState>> = {
  flow: { sort: 'share:desc' },
  change: { list: 'changes', select: 'not same', sort: 'cost:desc' },
};

const beginningOf = (pathname: string): ScreenState => ({
  list: 'pages',
  by: 'section',
  select: '',
  sort: '',
  page: '',
  part: '',
  at: '',
  reader: 'visitor',
  picture: '',
  sources: '',
  order: '',
  item: '',
  since: '',
  map: '',
  pair: '',
  colour: 'verdict',
  size: 'share',
  only: '',
  zoom: '1',
  from: '',
  shape: 'nodes',
  ...beginnings[pathname.slice(pathname.lastIndexOf('/') + 1)],
});

export function screenState(url: URL): ScreenState {
  const state = { ...beginningOf(url.pathname), ...Object.fromEntries(url.searchParams) } as ScreenState;
  const { list } = beginningOf(url.pathname);
  return {
    ...state,
    list: listNames.includes(state.list) ? state.list : list,
    reader: oneOf(readers, state.reader),
  };
}

/**
 * An address that may become a link; null for anything but http and https, such as a script that somebody has put into
 * the address of a screen.
 */
export const webAddress = (address: string): string | null => (/^https?:\/\//i.test(address) ? address : null);

/** Path and query of a screen in another state; what is as it begins is left out. */
export function withState(url: URL, changes: Partial<ScreenState>, pathname = url.pathname): string {
  const now = screenState(url);
  const beginning = beginningOf(pathname);
  const state: ScreenState = {
    ...(pathname === url.pathname
      ? now
      : { ...beginning, ...Object.fromEntries(kept.map((name) => [name, now[name]])) }),
    ...changes,
  };
  // A sort means nothing in another list, nor a selection where the other language is spoken.
  if (changes.list && changes.list !== now.list && changes.sort === undefined) state.sort = '';
  if (!state.page) state.part = state.at = '';
  const query = new URLSearchParams();
  for (const name of Object.keys(beginning) as (keyof ScreenState)[])
    if (state[name] !== beginning[name]) query.set(name, state[name]);
  return query.size ? `${pathname}?${query}` : pathname;
}

/** The query by which the rows of a state are asked for. */
export function viewQuery(
  { list, select, sort, by, since, map, pair }: ScreenState,
  columns: readonly string[],
): string {
  const query = new URLSearchParams({ list, select, sort, columns: columns.join(',') });
  if (list === 'groups') query.set('by', by);
  for (const [name, value] of Object.entries({ since, map, pair })) if (value) query.set(name, value);
  return query.toString();
}

/** What a selection becomes when another list is chosen. */
export function carriedOver(from: ListName, to: ListName, select: string): string {
  if (listedOf(from) === listedOf(to)) return select;
  if (listedOf(to) === 'pages') return to === 'changes' ? 'not same' : '';
  if (isListAcross(to)) return select.trim() && select !== 'not same' ? `from (${select.trim()})` : '';
  const about = to === 'hosts' ? 'kind = click and external' : 'kind = click';
  return select.trim() ? `${about} and from (${select.trim()})` : about;
}
