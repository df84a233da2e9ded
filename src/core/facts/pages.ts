/**
 * The one table of page facts. Columns of lists, CSV headers, the selection language, completion, tooltips and the list
 * in docs/MEANINGS.md are made of it; the codec of snapshots and the database schema are checked against it.
 */
import { anchorFaults } from '../links';
import {
  canonicalStates,
  fetchErrors,
  heldBack,
  reaches,
  redirectStates,
  sources,
  unreadableReasons,
  unvisitedReasons,
  verdicts,
} from './values';

/**
 * How a fact is kept: `text` as codes of a dictionary, `number` as 32-bit integers, `ratio` as 64-bit floats, `flag` as
 * yes, no or unknown, `choice` as the index into a closed list, `set` as a bit for each entry of a closed list. A
 * `message` is not kept: it is put together from other facts, as a code with parameters, whenever it is shown.
 */
export type FactType = 'text' | 'number' | 'ratio' | 'flag' | 'choice' | 'set' | 'message';

export type Unit =
  | 'clicks'
  | 'pages'
  | 'links'
  | 'addresses'
  | 'redirects'
  | 'requests'
  | 'hits'
  | 'rows'
  | 'words'
  | 'bytes'
  | 'ms'
  | '×';

export interface Fact {
  type: FactType;
  /** What a number counts or measures. */
  unit?: Unit;
  /** Spelt out for the interface. */
  label: string;
  /** One line: the tooltip and the entry of docs/MEANINGS.md. */
  meaning: string;
  /**
   * `base` facts were observed; `derived` ones are worked out of them by src/core/analysis; `import` ones come from the
   * lists and logs that a person imported, and are put beside a snapshot when it is opened (src/core/imports).
   */
  from: 'base' | 'derived' | 'import';
  /** The closed list of a choice or set. */
  values?: readonly string[];
  /** How its cells are shown, where the type does not tell. */
  as?: 'address' | 'verdict' | 'code';
  /** Which end comes first when a list is sorted by it for the first time; `none` for what cannot be sorted. */
  sort: 'low' | 'high' | 'none';
  /** Texts longer than this many characters are cut when they are read, and the page is marked `truncated`. */
  limit?: number;
  /** Its place among the columns of pages.csv, from 1; absent for facts that are not exported. */
  csv?: number;
}

/** What a URL or a text of prose may be long. */
const ADDRESS = 8192;
const PROSE = 2000;
const TEMPLATE = 400;

export const pageFacts = {
  url: {
    type: 'text',
    label: 'Address',
    meaning: 'The address in its normal form: what identifies the page.',
    from: 'base',
    as: 'address',
    sort: 'low',
    limit: ADDRESS,
    csv: 1,
  },
  host: {
    type: 'text',
    label: 'Host',
    meaning: 'Host of the address, with its port if one is written.',
    from: 'derived',
    sort: 'low',
  },
  path: { type: 'text', label: 'Path', meaning: 'Path of the address.', from: 'derived', sort: 'low' },
  query: {
    type: 'text',
    label: 'Query',
    meaning: 'Query of the address with its question mark.',
    from: 'derived',
    sort: 'low',
  },
  section: {
    type: 'text',
    label: 'Section',
    meaning: 'First folder of the path, or the name that a section pattern of the settings gives.',
    from: 'derived',
    sort: 'low',
  },
  status: {
    type: 'number',
    label: 'Status',
    meaning: 'HTTP status code of the answer.',
    from: 'base',
    sort: 'low',
    csv: 2,
  },
  content_type: {
    type: 'text',
    label: 'Content type',
    meaning: 'Media type that the Content-Type header names.',
    from: 'base',
    sort: 'low',
    limit: 255,
    csv: 3,
  },
  html: {
    type: 'flag',
    label: 'HTML',
    meaning: 'Whether the answer held an HTML document that was read for links.',
    from: 'base',
    sort: 'high',
  },
  bytes: {
    type: 'number',
    unit: 'bytes',
    label: 'Size',
    meaning: 'Size of the body as it was sent, compressed if it was.',
    from: 'base',
    sort: 'high',
  },
  response_ms: {
    type: 'number',
    unit: 'ms',
    label: 'Response time',
    meaning: 'Time from the request to the first byte of the answer.',
    from: 'base',
    sort: 'high',
  },
  tries: {
    type: 'number',
    unit: 'requests',
    label: 'Requests made',
    meaning: 'How many requests it took until the last answer.',
    from: 'base',
    sort: 'high',
  },
  error: {
    type: 'choice',
    label: 'Error',
    meaning: 'Why no answer came, or why the answer could not be read.',
    from: 'base',
    values: fetchErrors,
    sort: 'low',
  },
  unreadable_reason: {
    type: 'choice',
    label: 'Unreadable because',
    meaning: 'Why the document could not be read: it took too long, took too much memory, or made the parser fail.',
    from: 'base',
    values: unreadableReasons,
    sort: 'low',
  },
  unvisited_reason: {
    type: 'choice',
    label: 'Not fetched because',
    meaning: 'Why a known address was not fetched.',
    from: 'base',
    values: unvisitedReasons,
    sort: 'low',
    csv: 31,
  },
  redirect_to: {
    type: 'text',
    label: 'Redirects to',
    meaning: 'The address that the redirect or meta refresh of the page itself names.',
    from: 'base',
    as: 'address',
    sort: 'low',
    limit: ADDRESS,
    csv: 16,
  },
  redirect_hops: {
    type: 'number',
    unit: 'redirects',
    label: 'Redirects in a row',
    meaning: 'How many redirects follow each other from this address.',
    from: 'derived',
    sort: 'high',
  },
  redirect_state: {
    type: 'choice',
    label: 'Redirect leads',
    meaning: 'Where the redirect leads: to a page at once, through a chain, round a loop, off the site, or nowhere.',
    from: 'derived',
    values: redirectStates,
    sort: 'low',
    csv: 32,
  },
  redirect_end: {
    type: 'text',
    label: 'Redirect ends at',
    meaning: 'The address at the end of the chain of redirects; unknown for a loop.',
    from: 'derived',
    as: 'address',
    sort: 'low',
  },
  title: {
    type: 'text',
    label: 'Title',
    meaning: 'Text of the title element.',
    from: 'base',
    sort: 'low',
    limit: PROSE,
    csv: 4,
  },
  description: {
    type: 'text',
    label: 'Description',
    meaning: 'Content of the meta description.',
    from: 'base',
    sort: 'low',
    limit: PROSE,
    csv: 21,
  },
  h1: {
    type: 'text',
    label: 'Main heading',
    meaning: 'Texts of all h1 elements, joined by " / ".',
    from: 'base',
    sort: 'low',
    limit: PROSE,
    csv: 22,
  },
  language: {
    type: 'text',
    label: 'Language',
    meaning: 'The lang attribute of the html element.',
    from: 'base',
    sort: 'low',
    limit: 100,
    csv: 24,
  },
  robots: {
    type: 'text',
    label: 'Robots directives',
    meaning: 'Page-level directives that hold for the chosen user agent, from meta elements and X-Robots-Tag.',
    from: 'base',
    sort: 'low',
    limit: PROSE,
    csv: 13,
  },
  page_rules: {
    type: 'text',
    label: 'Directives for all agents',
    meaning: 'All page-level robots directives, with the agent they name and where they stand.',
    from: 'base',
    sort: 'low',
    limit: PROSE,
  },
  robots_rule: {
    type: 'text',
    label: 'robots.txt rule',
    meaning:
      'The robots.txt rule that closes the address, as the file has it; "unreadable" when the file could not be read.',
    from: 'base',
    as: 'code',
    sort: 'low',
    limit: PROSE,
    csv: 25,
  },
  robots_line: {
    type: 'number',
    label: 'robots.txt line',
    meaning: 'Line of robots.txt at which that rule stands.',
    from: 'base',
    sort: 'low',
    csv: 30,
  },
  robots_group: {
    type: 'text',
    label: 'robots.txt group',
    meaning: 'User agent of the robots.txt group that holds that rule.',
    from: 'base',
    sort: 'low',
    limit: 200,
  },
  noindex: {
    type: 'flag',
    label: 'Noindex',
    meaning: 'Whether a directive for the chosen user agent says noindex.',
    from: 'base',
    sort: 'high',
    csv: 14,
  },
  page_nofollow: {
    type: 'flag',
    label: 'Page-level nofollow',
    meaning: 'Whether a directive says nofollow for all links of the page.',
    from: 'base',
    sort: 'high',
  },
  canonical: {
    type: 'text',
    label: 'Canonical',
    meaning: 'The address that the first canonical of the page names.',
    from: 'base',
    as: 'address',
    sort: 'low',
    limit: ADDRESS,
    csv: 12,
  },
  canonical_state: {
    type: 'choice',
    label: 'Canonical leads to',
    meaning:
      'What becomes of the canonical: the page itself, another indexable page, a chain, a loop, one off the site, one that may not be indexed, or one not fetched.',
    from: 'derived',
    values: canonicalStates,
    sort: 'low',
    csv: 26,
  },
  canonicals: {
    type: 'number',
    unit: 'addresses',
    label: 'Different canonicals',
    meaning: 'How many different addresses the canonicals of the page name.',
    from: 'derived',
    sort: 'high',
  },
  verdict: {
    type: 'choice',
    label: 'Verdict',
    meaning: 'The one answer to whether the page may be indexed, and if not, why.',
    from: 'derived',
    values: verdicts,
    as: 'verdict',
    sort: 'low',
    csv: 11,
  },
  verdict_reason: {
    type: 'message',
    label: 'Reason',
    meaning: 'The evidence for the verdict, as a sentence.',
    from: 'derived',
    sort: 'none',
    csv: 27,
  },
  seen_in: {
    type: 'set',
    label: 'Seen in',
    meaning: 'The sources that know the address.',
    from: 'derived',
    values: sources,
    sort: 'low',
    csv: 15,
  },
  depth: {
    type: 'number',
    unit: 'clicks',
    label: 'Depth',
    meaning: 'Fewest clicks from a start page for a visitor; redirects cost no click. Unknown: no route.',
    from: 'derived',
    sort: 'low',
    csv: 5,
  },
  crawler_depth: {
    type: 'number',
    unit: 'clicks',
    label: 'Crawler depth',
    meaning: 'The same for a search crawler, which obeys robots.txt and nofollow.',
    from: 'derived',
    sort: 'low',
    csv: 17,
  },
  held_back: {
    type: 'choice',
    label: 'Closed to crawlers by',
    meaning: 'What keeps a search crawler from a page that a visitor reaches.',
    from: 'derived',
    values: heldBack,
    sort: 'low',
  },
  reach: {
    type: 'choice',
    label: 'Reach',
    meaning:
      'Reached from the start; an orphan, which no page links to; or on an island, which only unreached pages link to.',
    from: 'derived',
    values: reaches,
    sort: 'low',
    csv: 6,
  },
  island: {
    type: 'number',
    label: 'Island',
    meaning: 'Number of the island the page is on, from 1 for the largest.',
    from: 'derived',
    sort: 'low',
    csv: 20,
  },
  island_size: {
    type: 'number',
    unit: 'pages',
    label: 'Pages of the island',
    meaning: 'How many pages are on that island.',
    from: 'derived',
    sort: 'high',
  },
  gate_for: {
    type: 'number',
    unit: 'pages',
    label: 'Gate for',
    meaning: 'How many reached pages lose every route from the start if this page goes.',
    from: 'derived',
    sort: 'high',
    csv: 19,
  },
  share: {
    type: 'ratio',
    unit: '×',
    label: 'Share',
    meaning: 'Part of the internal PageRank of the site, as a multiple of an even split: 1× is average.',
    from: 'derived',
    sort: 'high',
    csv: 18,
  },
  peer_share: {
    type: 'ratio',
    unit: '×',
    label: 'Share of peers',
    meaning:
      'Its share divided by the median share of the indexable pages of its section at its depth or, where these are fewer than five, of all at its depth.',
    from: 'derived',
    sort: 'low',
  },
  links_in: {
    type: 'number',
    unit: 'links',
    label: 'Links in',
    meaning: 'Click links that lead here, every occurrence counted; links from the page itself do not count.',
    from: 'derived',
    sort: 'high',
    csv: 8,
  },
  pages_linking: {
    type: 'number',
    unit: 'pages',
    label: 'Pages linking',
    meaning: 'Different pages of the site that link here.',
    from: 'derived',
    sort: 'high',
    csv: 7,
  },
  links_out: {
    type: 'number',
    unit: 'links',
    label: 'Links out',
    meaning: 'Click links on the page, every occurrence counted, those that lead off the site included.',
    from: 'derived',
    sort: 'high',
    csv: 10,
  },
  pages_linked: {
    type: 'number',
    unit: 'pages',
    label: 'Pages linked',
    meaning: 'Different pages of the site that the page links to.',
    from: 'derived',
    sort: 'high',
    csv: 9,
  },
  content_links: {
    type: 'number',
    unit: 'pages',
    label: 'Content links',
    meaning: 'Different pages of the site that the page links to from its own content, shared navigation apart.',
    from: 'derived',
    sort: 'high',
  },
  template: {
    type: 'text',
    label: 'Template',
    meaning:
      'The blocks that the page is built of, as far as links stand in them: pages of one template have the same.',
    from: 'derived',
    sort: 'low',
    limit: TEMPLATE,
  },
  external_links: {
    type: 'number',
    unit: 'links',
    label: 'External links',
    meaning: 'Click links on the page that lead off the site.',
    from: 'derived',
    sort: 'high',
  },
  anchors: {
    type: 'number',
    label: 'Different anchors',
    meaning: 'How many different anchor texts the links to the page have.',
    from: 'derived',
    sort: 'high',
  },
  anchor_faults: {
    type: 'set',
    label: 'Anchor faults',
    meaning: 'Faults of the anchor texts of the links to the page.',
    from: 'derived',
    values: anchorFaults,
    sort: 'high',
  },
  missing_fragments: {
    type: 'number',
    unit: 'links',
    label: 'Missing fragments',
    meaning: 'Click links on the page whose fragment names no element of their target.',
    from: 'derived',
    sort: 'high',
  },
  word_count: {
    type: 'number',
    unit: 'words',
    label: 'Words',
    meaning: 'Words of the main content.',
    from: 'base',
    sort: 'low',
    csv: 23,
  },
  content_hash: {
    type: 'text',
    label: 'Content hash',
    meaning: 'First 128 bits of the SHA-256 of the body; equal bodies have equal hashes.',
    from: 'base',
    as: 'code',
    sort: 'low',
    limit: 32,
  },
  breadcrumb: {
    type: 'text',
    label: 'Breadcrumb',
    meaning: 'The breadcrumb trail of the page.',
    from: 'base',
    sort: 'low',
    limit: PROSE,
  },
  breadcrumb_parent: {
    type: 'text',
    label: 'Breadcrumb parent',
    meaning: 'The page directly above in the breadcrumb trail.',
    from: 'base',
    as: 'address',
    sort: 'low',
    limit: ADDRESS,
  },
  duplicates: {
    type: 'number',
    unit: 'pages',
    label: 'Duplicates',
    meaning: 'Other pages that may be indexed with the same body, byte for byte.',
    from: 'derived',
    sort: 'high',
    csv: 28,
  },
  near_duplicates: {
    type: 'number',
    unit: 'pages',
    label: 'Near-duplicates',
    meaning: 'Other pages whose main content is nearly the same; counted among pages that may be indexed.',
    from: 'derived',
    sort: 'high',
    csv: 29,
  },
  near_group: {
    type: 'number',
    label: 'Near-duplicate group',
    meaning: 'Number of the group of near-duplicates the page is in, from 1 for the largest.',
    from: 'derived',
    sort: 'low',
  },
  variants: {
    type: 'number',
    unit: 'addresses',
    label: 'Variants',
    meaning: 'Other known addresses of the same page: scheme, www, case, trailing slash, index file, parameters.',
    from: 'derived',
    sort: 'high',
  },
  variants_unsettled: {
    type: 'flag',
    label: 'Unsettled variants',
    meaning: 'Whether several of these addresses may be indexed, with no redirect or canonical deciding between them.',
    from: 'derived',
    sort: 'high',
  },
  truncated: {
    type: 'flag',
    label: 'Read in part',
    meaning: 'Whether the body or one of its texts was longer than what is read.',
    from: 'base',
    sort: 'high',
  },
  carried: {
    type: 'flag',
    label: 'Carried over',
    meaning: 'Whether the page was taken over from an earlier crawl instead of fetched again.',
    from: 'base',
    sort: 'high',
  },
  fetched_at: {
    type: 'text',
    label: 'Fetched',
    meaning: 'When the page was fetched, in UTC.',
    from: 'base',
    sort: 'high',
    limit: 40,
  },
  sitemap_lastmod: {
    type: 'text',
    label: 'Sitemap lastmod',
    meaning: 'The newest lastmod that a sitemap gives for the address.',
    from: 'base',
    sort: 'high',
    limit: 64,
  },
  log_hits: {
    type: 'number',
    unit: 'hits',
    label: 'Log hits',
    meaning: 'How often the address was asked for, by all imported access logs together. Unknown: in none of them.',
    from: 'import',
    sort: 'high',
  },
  crawler_hits: {
    type: 'number',
    unit: 'hits',
    label: 'Crawler hits',
    meaning: 'How many of its log hits are of search crawlers, by their user agents.',
    from: 'import',
    sort: 'high',
  },
  last_hit: {
    type: 'text',
    label: 'Last hit',
    meaning: 'When the imported access logs have it last, in UTC.',
    from: 'import',
    sort: 'high',
  },
  list_hits: {
    type: 'number',
    unit: 'rows',
    label: 'List rows',
    meaning: 'How many rows of imported lists name the address.',
    from: 'import',
    sort: 'high',
  },
} as const satisfies Record<string, Fact>;

type PageFacts = typeof pageFacts;
export type FactName = keyof PageFacts;
/** Facts that are kept as a column of a snapshot. */
export type ColumnName = { [N in FactName]: PageFacts[N]['type'] extends 'message' ? never : N }[FactName];
export type BaseFact = { [N in ColumnName]: PageFacts[N]['from'] extends 'base' ? N : never }[ColumnName];
export type ImportFact = { [N in ColumnName]: PageFacts[N]['from'] extends 'import' ? N : never }[ColumnName];
export type DerivedFact = Exclude<ColumnName, BaseFact | ImportFact>;
type Typed<T extends FactType> = { [N in FactName]: PageFacts[N]['type'] extends T ? N : never }[FactName];
export type TextFact = Typed<'text'>;
export type RatioFact = Typed<'ratio'>;
/** Facts whose columns are 32-bit integers. */
export type IntegerFact = Exclude<ColumnName, TextFact | RatioFact>;

export const factNames = Object.keys(pageFacts) as FactName[];
export const factOf = (name: FactName): Fact => pageFacts[name];
export const isFactName = (name: string): name is FactName => Object.hasOwn(pageFacts, name);
export const isColumnName = (name: string): name is ColumnName =>
  isFactName(name) && pageFacts[name].type !== 'message';
export const columnNames = factNames.filter(isColumnName);
export const baseFacts = columnNames.filter((name): name is BaseFact => pageFacts[name].from === 'base');
export const derivedFacts = columnNames.filter((name): name is DerivedFact => pageFacts[name].from === 'derived');
export const importFacts = columnNames.filter((name): name is ImportFact => pageFacts[name].from === 'import');

/** The columns of pages.csv, in order: later facts are added at the end, so that files stay comparable. */
export const csvFacts = factNames
  .filter((name) => factOf(name).csv !== undefined)
  .sort((a, b) => factOf(a).csv! - factOf(b).csv!);

/** How many characters of a text fact are kept. */
export const limitOf = (name: TextFact): number => factOf(name).limit ?? Infinity;
