/**
 * The one table of page facts. Columns of lists, CSV headers, the selection language, completion, tooltips and the list
 * in docs/MEANINGS.md are made of it; the codec of snapshots and the database schema are checked against it.
 */
import { anchorFaults } from '../links';
import { base, derived, imported } from './fact';
import type { Fact, FactType } from './fact';
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

/** What a URL or a text of prose may be long. */
const ADDRESS = 8192;
const PROSE = 2000;
const TEMPLATE = 400;

export const pageFacts = {
  url: base.text('Address', 'The address in its normal form: what identifies the page.', {
    as: 'address',
    limit: ADDRESS,
  }),
  host: derived.text('Host', 'Host of the address, with its port if one is written.'),
  path: derived.text('Path', 'Path of the address.'),
  query: derived.text('Query', 'Query of the address with its question mark.'),
  section: derived.text(
    'Section',
    'First folder of the path, or the name that a section pattern of the settings gives.',
  ),
  status: base.number('Status', 'HTTP status code of the answer.', { sort: 'low' }),
  content_type: base.text('Content type', 'Media type that the Content-Type header names.', { limit: 255 }),
  html: base.flag('HTML', 'Whether the answer held an HTML document that was read for links.'),
  bytes: base.number('Size', 'Size of the body as it was sent, compressed if it was.', { unit: 'bytes' }),
  response_ms: base.number('Response time', 'Time from the request to the first byte of the answer.', { unit: 'ms' }),
  tries: base.number('Requests made', 'How many requests it took until the last answer.', { unit: 'requests' }),
  error: base.choice('Error', 'Why no answer came, or why the answer could not be read.', { values: fetchErrors }),
  unreadable_reason: base.choice(
    'Unreadable because',
    'Why the document could not be read: it took too long, took too much memory, or made the parser fail.',
    { values: unreadableReasons },
  ),
  unvisited_reason: base.choice('Not fetched because', 'Why a known address was not fetched.', {
    values: unvisitedReasons,
  }),
  redirect_to: base.page('Redirects to', 'The address that the redirect or meta refresh of the page itself names.', {
    limit: ADDRESS,
  }),
  redirect_hops: derived.number('Redirects in a row', 'How many redirects follow each other from this address.', {
    unit: 'redirects',
  }),
  redirect_state: derived.choice(
    'Redirect leads',
    'Where the redirect leads: to a page at once, through a chain, round a loop, off the site, or nowhere.',
    { values: redirectStates },
  ),
  redirect_end: derived.page(
    'Redirect ends at',
    'The address at the end of the chain of redirects; unknown for a loop.',
  ),
  title: base.text('Title', 'Text of the title element.', { limit: PROSE }),
  description: base.text('Description', 'Content of the meta description.', { limit: PROSE }),
  h1: base.text('Main heading', 'Texts of all h1 elements, joined by " / ".', { limit: PROSE }),
  language: base.text('Language', 'The lang attribute of the html element.', { limit: 100 }),
  robots: base.text(
    'Robots directives',
    'Page-level directives that hold for the chosen user agent, from meta elements and X-Robots-Tag.',
    { limit: PROSE },
  ),
  page_rules: base.text(
    'Directives for all agents',
    'All page-level robots directives, with the agent they name and where they stand.',
    { limit: PROSE },
  ),
  robots_rule: base.text(
    'robots.txt rule',
    'The robots.txt rule that closes the address, as the file has it; "unreadable" when the file could not be read.',
    { as: 'code', limit: PROSE },
  ),
  robots_line: base.number('robots.txt line', 'Line of robots.txt at which that rule stands.', { sort: 'low' }),
  robots_group: base.text('robots.txt group', 'User agent of the robots.txt group that holds that rule.', {
    limit: 200,
  }),
  noindex: base.flag('Noindex', 'Whether a directive for the chosen user agent says noindex.'),
  page_nofollow: base.flag('Page-level nofollow', 'Whether a directive says nofollow for all links of the page.'),
  canonical: base.page('Canonical', 'The address that the first canonical of the page names.', {
    limit: ADDRESS,
  }),
  canonical_state: derived.choice(
    'Canonical leads to',
    'What becomes of the canonical: the page itself, another indexable page, a chain, a loop, one off the site, one that may not be indexed, or one not fetched.',
    { values: canonicalStates },
  ),
  canonicals: derived.number('Different canonicals', 'How many different addresses the canonicals of the page name.', {
    unit: 'addresses',
  }),
  verdict: derived.choice('Verdict', 'The one answer to whether the page may be indexed, and if not, why.', {
    values: verdicts,
    as: 'verdict',
  }),
  verdict_reason: derived.message('Reason', 'The evidence for the verdict, as a sentence.'),
  seen_in: derived.set('Seen in', 'The sources that know the address.', { values: sources, sort: 'low' }),
  depth: derived.number(
    'Depth',
    'Fewest clicks from a start page for a visitor; redirects cost no click. Unknown: no route.',
    { unit: 'clicks', sort: 'low' },
  ),
  parent: derived.page(
    'Parent',
    'The page before it on the shortest route; of several, the one with the most share. Unknown at a start page and without a route.',
  ),
  crawler_depth: derived.number(
    'Crawler depth',
    'The same for a search crawler, which obeys robots.txt and nofollow.',
    { unit: 'clicks', sort: 'low' },
  ),
  held_back: derived.choice(
    'Closed to crawlers by',
    'What keeps a search crawler from a page that a visitor reaches.',
    { values: heldBack },
  ),
  reach: derived.choice(
    'Reach',
    'Reached from the start; an orphan, which no page links to; or on an island, which only unreached pages link to.',
    { values: reaches },
  ),
  paging: derived.flag(
    'Further page of a list',
    'Whether the page is the second or a later one of a list that is split up, by its number, its title and the links to it.',
  ),
  depth_without_paging: derived.number(
    'Depth without paging',
    'Fewest clicks from a start page that lead over no further page of a list.',
    { unit: 'clicks' },
  ),
  only_paging: derived.flag(
    'Only through paging',
    'Whether every route to the page leads over further pages of lists, down which it slides as new entries come.',
  ),
  island: derived.number('Island', 'Number of the island the page is on, from 1 for the largest.', { sort: 'low' }),
  island_size: derived.number('Pages of the island', 'How many pages are on that island.', { unit: 'pages' }),
  community: derived.number(
    'Community',
    'Number of the group of pages, from 1 for the largest, that link to each other more than to others; links to pages that more than a tenth of all link to do not count.',
    { sort: 'low' },
  ),
  gate_for: derived.number('Gate for', 'How many reached pages lose every route from the start if this page goes.', {
    unit: 'pages',
  }),
  share: derived.ratio(
    'Share',
    'Part of the internal PageRank of the site, as a multiple of an even split: 1× is average.',
    { unit: '×' },
  ),
  peer_share: derived.ratio(
    'Share of peers',
    'Its share divided by the median share of the indexable pages of its section at its depth or, where these are fewer than five, of all at its depth.',
    { unit: '×', sort: 'low' },
  ),
  links_in: derived.number(
    'Links in',
    'Click links that lead here, every occurrence counted; links from the page itself do not count.',
    { unit: 'links' },
  ),
  pages_linking: derived.number('Pages linking', 'Different pages of the site that link here.', { unit: 'pages' }),
  pages_linking_followed: derived.number(
    'Pages linking, followed',
    'Different pages of the site that link here with at least one link that search crawlers follow.',
    { unit: 'pages' },
  ),
  text_links_in: derived.number(
    'Links from running text',
    'Click links that lead here from a sentence in the main content of other pages; menus, lists, cards and tables of links do not count, nor does what many pages repeat.',
    { unit: 'links' },
  ),
  pages_linking_text: derived.number(
    'Pages linking from text',
    'Different pages of the site that link here from running text.',
    { unit: 'pages' },
  ),
  links_out: derived.number(
    'Links out',
    'Click links on the page, every occurrence counted, those that lead off the site included.',
    { unit: 'links' },
  ),
  pages_linked: derived.number('Pages linked', 'Different pages of the site that the page links to.', {
    unit: 'pages',
  }),
  content_links: derived.number(
    'Content links',
    'Different pages of the site that the page links to from its own content, shared navigation apart.',
    { unit: 'pages' },
  ),
  template: derived.text(
    'Template',
    'The blocks that the page is built of, as far as links stand in them: pages of one template have the same.',
    { limit: TEMPLATE },
  ),
  external_links: derived.number('External links', 'Click links on the page that lead off the site.', {
    unit: 'links',
  }),
  anchors: derived.number('Different anchors', 'How many different anchor texts the links to the page have.'),
  anchor_faults: derived.set('Anchor faults', 'Faults of the anchor texts of the links to the page.', {
    values: anchorFaults,
  }),
  missing_fragments: derived.number(
    'Missing fragments',
    'Click links on the page whose fragment names no element of their target.',
    { unit: 'links' },
  ),
  word_count: base.number('Words', 'Words of the main content.', { unit: 'words', sort: 'low' }),
  content_hash: base.text(
    'Content hash',
    'First 128 bits of the SHA-256 of the body; equal bodies have equal hashes.',
    { as: 'code', limit: 32 },
  ),
  breadcrumb: base.text('Breadcrumb', 'The breadcrumb trail of the page.', { limit: PROSE }),
  breadcrumb_parent: base.page('Breadcrumb parent', 'The page directly above in the breadcrumb trail.', {
    limit: ADDRESS,
  }),
  duplicates: derived.number('Duplicates', 'Other pages that may be indexed with the same body, byte for byte.', {
    unit: 'pages',
  }),
  near_duplicates: derived.number(
    'Near-duplicates',
    'Other pages whose main content is nearly the same; counted among pages that may be indexed.',
    { unit: 'pages' },
  ),
  near_group: derived.number(
    'Near-duplicate group',
    'Number of the group of near-duplicates the page is in, from 1 for the largest.',
    { sort: 'low' },
  ),
  variants: derived.number(
    'Variants',
    'Other known addresses of the same page: scheme, www, case, trailing slash, index file, parameters.',
    { unit: 'addresses' },
  ),
  variants_unsettled: derived.flag(
    'Unsettled variants',
    'Whether several of these addresses may be indexed, with no redirect or canonical deciding between them.',
  ),
  truncated: base.flag('Read in part', 'Whether the body or one of its texts was longer than what is read.'),
  carried: base.flag('Carried over', 'Whether the page was taken over from an earlier crawl instead of fetched again.'),
  fetched_at: base.text('Fetched', 'When the page was fetched, in UTC.', { limit: 40, sort: 'high' }),
  sitemap_lastmod: base.text('Sitemap lastmod', 'The newest lastmod that a sitemap gives for the address.', {
    limit: 64,
    sort: 'high',
  }),
  key: imported.flag('Key page', 'Whether a person has marked the page as one that matters most.'),
  log_hits: imported.number(
    'Log hits',
    'How often the address was asked for, by all imported access logs together. Unknown: in none of them.',
    { unit: 'hits' },
  ),
  crawler_hits: imported.number(
    'Crawler hits',
    'How many of its log hits are of search crawlers, by their user agents.',
    { unit: 'hits' },
  ),
  last_hit: imported.text('Last hit', 'When the imported access logs have it last, in UTC.', { sort: 'high' }),
  list_hits: imported.number('List rows', 'How many rows of imported lists name the address.', { unit: 'rows' }),
};

type PageFacts = typeof pageFacts;
export type FactName = keyof PageFacts;
/** Facts that are kept as a column of a snapshot. */
export type ColumnName = { [N in FactName]: PageFacts[N]['type'] extends 'message' ? never : N }[FactName];
export type BaseFact = { [N in ColumnName]: PageFacts[N]['from'] extends 'base' ? N : never }[ColumnName];
export type ImportFact = { [N in ColumnName]: PageFacts[N]['from'] extends 'import' ? N : never }[ColumnName];
export type DerivedFact = Exclude<ColumnName, BaseFact | ImportFact>;
type Typed<T extends FactType> = { [N in FactName]: PageFacts[N]['type'] extends T ? N : never }[FactName];
/** Facts that name a page by its address. */
export type PageFact = Typed<'page'>;
export type TextFact = Typed<'text' | 'page'>;
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

/** How many characters of a text fact are kept. */
export const limitOf = (name: TextFact): number => factOf(name).limit ?? Infinity;
