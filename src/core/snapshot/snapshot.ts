import type { Check } from './build';
import { valueAt } from './column';
import type { Column, TextColumn } from './column';
import type { FactName, FactValue } from './facts';
import { CLICK, NO_CLICK, NO_WAY } from '../reach';
import type { LinkGraph } from '../reach';
import { verdicts } from '../verdict';
import { costsNoClick, linkKinds, relSaysNofollow } from '../links';

/** The links of a crawl as columns, one entry a link, in the order of their sources and then of the document. */
export interface LinkColumns {
  /** The links of page `i` are the entries `offsets[i]` to `offsets[i + 1] − 1`. */
  offsets: Uint32Array;
  /** Page number; `count` and above are entries of `outside`. */
  target: Uint32Array;
  /** Indexes into linkKinds, linkElements, landmarks. */
  kind: Uint8Array;
  element: Uint8Array;
  landmark: Uint8Array;
  /** Indexes into `phrases`. */
  anchor: Uint32Array;
  rel: Uint32Array;
  path: Uint32Array;
  line: Uint32Array;
  column: Uint32Array;
  /** Index into `phrases` of the fragment; 0 for none. */
  fragment: Uint32Array;
  /** Bits of what else is known of how it was written (BARE_IMAGE, RELATIVE). */
  marks: Uint8Array;
  /** Bits of `linkFaults`. */
  faults: Uint16Array;
}

/** One finished crawl as columns: pages are numbered in the order of their addresses. */
export interface Snapshot {
  count: number;
  /** Numbers of the start pages. */
  starts: number[];
  columns: Record<FactName, Column>;
  links: LinkColumns;
  /** Addresses that are linked to and are no pages: outside ones and resources. */
  outside: string[];
  /** What became of those that were asked for; null for those that were not. */
  checks: (Check | null)[];
  /** Texts of anchors, rels and paths; `phrases[0]` is ''. */
  phrases: string[];
  /** Pages known from a sitemap: which, where and on which line. */
  listings: { page: number; sitemap: string; line: number }[];
  /** The robots.txt files and sitemaps that were asked for. */
  files: SiteFiles;
}

export interface RobotsFile {
  origin: string;
  status: number | null;
  fault: string | null;
  body: string;
}

export interface SitemapFile {
  address: string;
  entries: number;
  /** Entries that were passed over. */
  passedOver: number;
  fault: string | null;
  faultLine: number | null;
}

export interface SiteFiles {
  robots: RobotsFile[];
  sitemaps: SitemapFile[];
}

/** The value of one fact of one page. */
export const factAt = (snapshot: Snapshot, name: FactName, page: number): FactValue =>
  valueAt(name, snapshot.columns[name], page);

/** As {@link factAt}, for facts of type text. */
export const textAt = (snapshot: Snapshot, name: FactName, page: number) =>
  factAt(snapshot, name, page) as string | null;

/** As {@link factAt}, for facts of type number. */
export const numberAt = (snapshot: Snapshot, name: FactName, page: number) =>
  factAt(snapshot, name, page) as number | null;

/** The address of a page, or of an outside target for numbers from `count` on. */
export const addressAt = (snapshot: Snapshot, page: number): string =>
  page < snapshot.count ? textAt(snapshot, 'url', page)! : snapshot.outside[page - snapshot.count];

/** The page with this address, by halving; −1 when it is not known. */
export function pageOf({ columns, count }: Snapshot, address: string): number {
  const url = columns.url as TextColumn;
  let low = 0;
  let high = count - 1;
  while (low <= high) {
    const middle = (low + high) >> 1;
    const at = url.values[url.codes[middle]];
    if (at === address) return middle;
    if (at < address) low = middle + 1;
    else high = middle - 1;
  }
  return -1;
}

const costOfKind = linkKinds.map((name) => (name === 'click' ? CLICK : costsNoClick(name) ? NO_CLICK : NO_WAY));

/** The graph that a visitor walks: every click link, redirects without cost, declared relations not at all. */
export const visitorGraph = (count: number, { offsets, target, kind }: LinkColumns): LinkGraph => ({
  count,
  offsets,
  targets: target,
  cost: kind.map((k) => costOfKind[k]),
});

/** What a crawler keeps to; a search crawler keeps to both. */
export interface Kept {
  nofollow: boolean;
  robots: boolean;
}

/** 1 for the pages that robots.txt closes. */
export const blockedPages = ({ columns }: Pick<Snapshot, 'columns'>): Int32Array =>
  (columns.verdict as Int32Array).map((code) => Number(verdicts[code] === 'blocked'));

/** The graph that a search crawler walks: the visitor's without links it does not follow and pages it does not ask for. */
export function crawlerGraph(
  snapshot: Snapshot,
  visitor: LinkGraph,
  keeps: Kept = { nofollow: true, robots: true },
): LinkGraph {
  const { links, phrases, columns } = snapshot;
  const pageNofollow = columns.page_nofollow as Int32Array;
  const blocked = blockedPages(snapshot);
  const nofollow = Uint8Array.from(phrases, (text) => Number(relSaysNofollow(text)));
  const cost = visitor.cost.slice();
  for (let page = 0; page < visitor.count; page++)
    for (let link = links.offsets[page]; link < links.offsets[page + 1]; link++) {
      const withheld = cost[link] === CLICK && (pageNofollow[page] === 1 || nofollow[links.rel[link]] === 1);
      const closed = blocked[page] === 1 || blocked[links.target[link]] === 1;
      if ((keeps.nofollow && withheld) || (keeps.robots && closed)) cost[link] = NO_WAY;
    }
  return { ...visitor, cost };
}

/** Where a search crawler begins: at the start pages that robots.txt leaves open. */
export function crawlerStarts(snapshot: Snapshot): number[] {
  const blocked = blockedPages(snapshot);
  return snapshot.starts.filter((page) => blocked[page] === 0);
}

/** Links by their targets, the reverse of the offsets of {@link LinkColumns}. */
export interface IncomingLinks {
  /** The links to page `i` are `links[offsets[i]]` to `links[offsets[i + 1] − 1]`. */
  offsets: Uint32Array;
  links: Uint32Array;
  /** The page each link stands on. */
  source: Uint32Array;
}

/** Sorts the links by target, by counting. */
export function incomingLinks({ count, links: { offsets, target } }: Snapshot): IncomingLinks {
  const into = new Uint32Array(count + 1);
  for (const to of target) if (to < count) into[to + 1]++;
  for (let page = 0; page < count; page++) into[page + 1] += into[page];
  const next = into.slice();
  const links = new Uint32Array(into[count]);
  const source = new Uint32Array(target.length);
  for (let page = 0; page < count; page++)
    for (let link = offsets[page]; link < offsets[page + 1]; link++) {
      source[link] = page;
      if (target[link] < count) links[next[target[link]]++] = link;
    }
  return { offsets: into, links, source };
}
