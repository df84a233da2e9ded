import type { BaseFact, ColumnName, DerivedFact, FetchError, IntegerFact, RatioFact, TextFact } from '../facts';
import type { Message } from '../messages';
import { valueAt } from './column';
import type { FactValue, TextColumn } from './column';
import type { WholeNumbers } from './wholeNumbers';

/** The links of a site as columns, one entry a link, in the order of their sources and then of the document. */
export interface BaseLinks {
  /** The links of page `i` are the entries `offsets[i]` to `offsets[i + 1] − 1`. */
  offsets: Uint32Array;
  /** Page number; `count` and above are entries of `outside`. */
  target: Uint32Array;
  /** Indexes into linkKinds, linkElements, placements. */
  kind: Uint8Array;
  element: Uint8Array;
  placement: Uint8Array;
  /** Indexes into `phrases`; 0 for none. */
  anchor: WholeNumbers;
  rel: WholeNumbers;
  above: WholeNumbers;
  fragment: WholeNumbers;
  line: WholeNumbers;
  column: WholeNumbers;
  /** Bits of what else was observed (BARE_IMAGE, RELATIVE, BESIDE, MISSING_FRAGMENT). */
  marks: Uint8Array;
}

export interface LinkColumns extends BaseLinks {
  /** Bits of `linkFaults`; derived. */
  faults: Uint16Array;
}

/** A page that a sitemap lists: which, where, on which line, and what it says of its age. */
export interface Listing {
  page: number;
  sitemap: string;
  line: number;
}

/** An edition of a page in another language that a sitemap names. */
export interface ListedAlternate {
  page: number;
  /** In lower case. */
  language: string;
  /** In its normal form; of this site or another. */
  address: string;
}

/** The answer to a request that only asked whether an address answers. */
export interface Check {
  status: number | null;
  error: FetchError | null;
}

/** How a server answered when a file was fetched. */
export interface FileAnswer {
  status: number;
  /** The address that answered, after redirects. */
  address: string;
  /** Redirects that were followed. */
  redirects: number;
  /** Media type in lower case, without parameters; '' when none was said. */
  type: string;
  /** Last-Modified, as ISO 8601; null when none was said. */
  modified: string | null;
  /** Seconds for which a cache on the way had held the answer (RFC 9111 §5.1); null when none said so. */
  age: number | null;
}

export interface RobotsFile {
  origin: string;
  status: number | null;
  fault: Message | null;
  body: string;
  /** Null when none came. */
  answer: FileAnswer | null;
}

export interface SitemapFile {
  address: string;
  entries: number;
  /** Entries that lead off the site or are no addresses. */
  skipped: number;
  /** RSS or Atom, which lists only what is new. */
  isFeed: boolean;
  fault: Message | null;
  faultLine: number | null;
  /** The index that named it first; null when none did. */
  index: string | null;
  /** How it was answered; null when it was not. */
  answer: FileAnswer | null;
}

export interface SiteFiles {
  robots: RobotsFile[];
  sitemaps: SitemapFile[];
}

type ColumnOf<N extends ColumnName> = N extends TextFact
  ? TextColumn
  : N extends RatioFact
    ? Float64Array
    : N extends IntegerFact
      ? Int32Array
      : never;
/** A column for each of some facts; −1 is unknown in numbers, the code 0 in texts. */
export type Columns<N extends ColumnName = ColumnName> = { [K in N]: ColumnOf<K> };

/** One site as it was observed. Pages are numbered in the order of their addresses, by code unit. */
export interface Base {
  count: number;
  /** Numbers of the start pages. */
  starts: number[];
  /** Numbers of the pages that imported lists know. */
  listed: number[];
  columns: Columns<BaseFact>;
  /** Two 32-bit halves a page, for finding pages that are alike (src/core/html/content.ts); 0 and 0 is unknown. */
  fingerprints: Uint32Array;
  /**
   * Which words each page has (src/core/words): the filter of page `i` is `bytes[offsets[i]]` to `bytes[offsets[i + 1] − 1]`,
   * which is none when they are not known.
   */
  wordFilters: { offsets: Uint32Array; bytes: Uint8Array };
  links: BaseLinks;
  /** Addresses that are linked to and are no pages: external ones and resources. */
  outside: string[];
  /** How those answered that were checked; null for those that were not. */
  checks: (Check | null)[];
  /** Texts of anchors, rels, fragments and elements above links; `phrases[0]` is ''. */
  phrases: string[];
  listings: Listing[];
  /** The editions that sitemaps name, in the order of their pages. */
  alternates: ListedAlternate[];
  /** The robots.txt files and sitemaps that were asked for. */
  files: SiteFiles;
}

/** A base with everything that src/core/analysis has worked out of it. */
export interface Snapshot extends Base {
  columns: Columns;
  links: LinkColumns;
}

/** What an analysis gives, or some of it. */
export interface Derived {
  columns: Partial<Columns<DerivedFact>>;
  /** Of links; null where they are not among it. */
  faults: Uint16Array | null;
}

export const derivedOf = ({ columns, links }: Snapshot): Derived => ({ columns, faults: links.faults });

/** The value of one fact of one page. */
export const factAt = (snapshot: Snapshot, name: ColumnName, page: number): FactValue =>
  valueAt(name, snapshot.columns[name], page);

/** As {@link factAt}, for facts of type text. */
export function textAt<N extends TextFact>({ columns }: { columns: Columns<N> }, name: N, page: number): string | null {
  const { codes, values } = columns[name] as TextColumn;
  return codes[page] === 0 ? null : values[codes[page]];
}

/** As {@link factAt}, for facts of type number. */
export const numberAt = (snapshot: Snapshot, name: IntegerFact, page: number) =>
  factAt(snapshot, name, page) as number | null;

type Addresses = Pick<Base, 'count' | 'outside'> & { columns: Columns<'url'> };

/** The address of a page, or of an outside target for numbers from `count` on. */
export function addressAt(snapshot: Addresses, page: number): string {
  const { columns, count } = snapshot;
  // Outside targets are read with the links, and so only when one of them is asked for.
  return page < count ? columns.url.values[columns.url.codes[page]] : snapshot.outside[page - count];
}

/** The page with this address, by halving; −1 when it is not known. */
export function pageOf({ columns: { url }, count }: Omit<Addresses, 'outside'>, address: string): number {
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

/** For each code of a text column of addresses the page with that address; −1 where there is none. */
export function pagesOfCodes(base: Omit<Addresses, 'outside'>, column: TextColumn): Int32Array {
  // Both lists are in order, so one pass over them is enough.
  const pages = new Int32Array(column.values.length).fill(-1);
  const { url } = base.columns;
  let page = 0;
  for (let code = 1; code < column.values.length; code++) {
    const address = column.values[code];
    while (page < base.count && url.values[url.codes[page]] < address) page++;
    if (page < base.count && url.values[url.codes[page]] === address) pages[code] = page;
  }
  return pages;
}

/** Links by their targets, the reverse of the offsets of {@link LinkColumns}. */
export interface IncomingLinks {
  /** The links to page `i` are `links[offsets[i]]` to `links[offsets[i + 1] − 1]`. */
  offsets: Uint32Array;
  links: Uint32Array;
  /** The page each link is on. */
  source: Uint32Array;
}

/** The page each link is on. */
export function sourcesOfLinks({ count, links: { offsets, target } }: Pick<Base, 'count' | 'links'>): Uint32Array {
  const source = new Uint32Array(target.length);
  for (let page = 0; page < count; page++) source.fill(page, offsets[page], offsets[page + 1]);
  return source;
}

/** Sorts the links by target, by counting. */
export function incomingLinks(base: Pick<Base, 'count' | 'links'>): IncomingLinks {
  const { count } = base;
  const { offsets, target } = base.links;
  const into = new Uint32Array(count + 1);
  for (const to of target) if (to < count) into[to + 1]++;
  for (let page = 0; page < count; page++) into[page + 1] += into[page];
  const next = into.slice();
  const links = new Uint32Array(into[count]);
  for (let page = 0; page < count; page++)
    for (let link = offsets[page]; link < offsets[page + 1]; link++)
      if (target[link] < count) links[next[target[link]]++] = link;
  return { offsets: into, links, source: sourcesOfLinks(base) };
}

/** How many pages pass a test. */
export function countPages({ count }: Pick<Base, 'count'>, test: (page: number) => boolean): number {
  let n = 0;
  for (let page = 0; page < count; page++) n += Number(test(page));
  return n;
}
