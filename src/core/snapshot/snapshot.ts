import { derivedFacts } from '../facts';
import type { BaseFact, ColumnName, DerivedFact, FetchError, IntegerFact, PageFact, TextFact } from '../facts';
import type { LinkInput } from '../links';
import type { Message } from '../messages';
import { codeOf, codesOf, pagesByCode, valueAt } from './column';
import type { ColumnReader, Columns, FactValue, TextColumn } from './column';
import type { BaseLinks, LinkColumns } from './linkColumns';

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

export interface FetchedRobots {
  origin: string;
  status: number | null;
  fault: Message | null;
  body: string;
  /** Null when none came. */
  answer: FileAnswer | null;
}

export interface FetchedSitemap {
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
  robots: FetchedRobots[];
  sitemaps: FetchedSitemap[];
}

/** What is observed of a site, besides the facts of its pages. */
export interface BaseParts {
  /** Numbers of the start pages. */
  starts: number[];
  /** Numbers of the pages that imported lists know. */
  listed: number[];
  /** Two 32-bit halves a page, for finding pages that are alike (src/core/words/fingerprint.ts); 0 and 0 is unknown. */
  fingerprints: Uint32Array;
  /**
   * Which words each page has (src/core/words): the filter of page `i` is `bytes[offsets[i]]` to `bytes[offsets[i + 1]
   * − 1]`, which is none when they are not known.
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

/** What is read of a site besides the facts of its pages and its links. */
export const partNames = [
  'starts',
  'listed',
  'fingerprints',
  'wordFilters',
  'outside',
  'checks',
  'phrases',
  'listings',
  'alternates',
  'files',
] as const satisfies readonly Exclude<keyof BaseParts, 'links'>[];
export type PartName = (typeof partNames)[number];
/** Something that is read of a view: facts, parts, and the links by what is read of them. */
export type Read = ColumnName | PartName | LinkInput | 'faults';

/** A place in the layers of a view. */
export interface Layered {
  /** What this layer was put on; null for the lowest. */
  readonly below: Layered | null;
  /** Whether this layer gives something in place of what is below. */
  gives: (what: Read) => boolean;
}

/**
 * One site as it was observed. A crawl numbers its pages in the order of their addresses; a layer may append pages. The
 * order of addresses is that of the codes of `url`.
 */
export interface Base extends Readonly<BaseParts>, Layered {
  readonly count: number;
  /** The column of a fact. */
  column: ColumnReader<BaseFact>;
}

/** A base with everything that src/core/analysis has worked out of it. */
export interface Snapshot extends Base {
  column: ColumnReader;
  readonly links: LinkColumns;
}

/** What an analysis gives, or some of it. */
export interface Derived {
  columns: Partial<Columns<DerivedFact>>;
  /** Of links; null where they are not among it. */
  faults: Uint16Array | null;
}

export const derivedOf = ({ column, links }: Snapshot): Derived => ({
  columns: Object.fromEntries(derivedFacts.map((name) => [name, column(name)])),
  faults: links.faults,
});

/** The value of one fact of one page. */
export const factAt = (snapshot: Pick<Snapshot, 'column'>, name: ColumnName, page: number): FactValue =>
  valueAt(name, snapshot.column(name), page);

/** As {@link factAt}, for facts of type text. */
export function textAt<N extends TextFact>({ column }: { column: ColumnReader<N> }, name: N, page: number) {
  const { codes, values }: TextColumn = column(name);
  return codes[page] === 0 ? null : values[codes[page]];
}

/** As {@link factAt}, for facts of type number. */
export function numberAt({ column }: Pick<Snapshot, 'column'>, name: IntegerFact, page: number): number | null {
  const value = column(name)[page];
  return value < 0 ? null : value;
}

type Addresses = Pick<Base, 'count' | 'outside'> & { column: ColumnReader<'url'> };

/** The address of a page, or of an outside target for numbers from `count` on. */
export function addressAt(snapshot: Addresses, page: number): string {
  // Outside targets are read with the links, and so only when one of them is asked for.
  if (page >= snapshot.count) return snapshot.outside[page - snapshot.count];
  const { codes, values } = snapshot.column('url');
  return values[codes[page]];
}

/** The page with this address; −1 when it is not known. */
export function pageOf({ column }: Pick<Addresses, 'column'>, address: string): number {
  const url = column('url');
  const code = codeOf(url, address);
  return code === null ? -1 : pagesByCode(url)[code];
}

/** For each of some addresses in ascending order the page with that address; −1 where there is none. */
export function pagesOfAddresses({ column }: Pick<Addresses, 'column'>, addresses: readonly string[]): Int32Array {
  const url = column('url');
  const pages = pagesByCode(url);
  return codesOf(url, addresses).map((code) => pages[code]);
}

/** For each page the page that a fact names; −1 where it names none, or one that is not known. */
export function pagesNamed<N extends PageFact>(base: { column: ColumnReader<'url' | N> }, name: N): Int32Array {
  const { codes, values }: TextColumn = base.column(name);
  const pages = pagesOfAddresses(base, values);
  return Int32Array.from(codes, (code) => (code === 0 ? -1 : pages[code]));
}

/**
 * Pages in the order of their addresses. A crawl numbers them so; pages that a layer appends come last.
 * @param pages ascending
 */
export function inAddressOrder({ column }: Pick<Addresses, 'column'>, pages: Uint32Array): Uint32Array {
  const { codes } = column('url');
  const isInOrder = pages.every((page, i) => i === 0 || codes[page] > codes[pages[i - 1]]);
  return isInOrder ? pages : pages.slice().sort((a, b) => codes[a] - codes[b]);
}

/** The page each link is on. */
export function sourcesOfLinks({ count, links: { offsets, target } }: Pick<Base, 'count' | 'links'>): Uint32Array {
  const source = new Uint32Array(target.length);
  for (let page = 0; page < count; page++) source.fill(page, offsets[page], offsets[page + 1]);
  return source;
}

/** How many pages pass a test. */
export function countPages({ count }: Pick<Base, 'count'>, test: (page: number) => boolean): number {
  let n = 0;
  for (let page = 0; page < count; page++) n += Number(test(page));
  return n;
}
