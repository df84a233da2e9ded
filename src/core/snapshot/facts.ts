import { anchorFaults } from '../links';
import { heldBack, reaches } from '../reach';
import { canonicalStates, verdicts } from '../verdict';

/** The sources that can know a URL, in the order of the bits of `seen_in`. */
export const sources = [
  'start',
  'links',
  'sitemap',
  'log',
  'list',
  'redirect',
  'canonical',
  'hreflang',
  'declared',
] as const;
export type Source = (typeof sources)[number];

/**
 * How a fact is kept: `text` as numbers of a dictionary, `number` as 32-bit integers, `ratio` as 64-bit floats, `flag` as
 * yes, no or unknown,
 * `choice` as the index into a fixed list, `set` as a bit for each entry of a fixed list.
 */
export type FactType = 'text' | 'number' | 'ratio' | 'flag' | 'choice' | 'set';

interface Fact {
  type: FactType;
  /** Spelt out for the interface. */
  label: string;
  values?: readonly string[];
}

/** Every fact of a page that a snapshot holds, under its one name (docs/MEANINGS.md, "Facts"). */
export const facts = {
  url: { type: 'text', label: 'Address' },
  host: { type: 'text', label: 'Host' },
  path: { type: 'text', label: 'Path' },
  query: { type: 'text', label: 'Query' },
  section: { type: 'text', label: 'Section' },
  status: { type: 'number', label: 'Status' },
  content_type: { type: 'text', label: 'Content type' },
  bytes: { type: 'number', label: 'Bytes' },
  response_ms: { type: 'number', label: 'Response, ms' },
  error: { type: 'text', label: 'Error' },
  redirect_to: { type: 'text', label: 'Redirects to' },
  redirect_hops: { type: 'number', label: 'Redirect hops' },
  title: { type: 'text', label: 'Title' },
  description: { type: 'text', label: 'Description' },
  h1: { type: 'text', label: 'Heading' },
  language: { type: 'text', label: 'Language' },
  robots: { type: 'text', label: 'Page-level rules' },
  robots_rule: { type: 'text', label: 'robots.txt rule' },
  noindex: { type: 'flag', label: 'Noindex' },
  page_nofollow: { type: 'flag', label: 'Page-level nofollow' },
  canonical: { type: 'text', label: 'Canonical' },
  canonical_state: { type: 'choice', label: 'Canonical leads to', values: canonicalStates },
  canonicals: { type: 'number', label: 'Different canonicals' },
  verdict: { type: 'choice', label: 'Verdict', values: verdicts },
  verdict_reason: { type: 'text', label: 'Reason' },
  seen_in: { type: 'set', label: 'Seen in', values: sources },
  depth: { type: 'number', label: 'Depth' },
  crawler_depth: { type: 'number', label: 'Crawler depth' },
  held_back: { type: 'choice', label: 'Kept from crawlers by', values: heldBack },
  reach: { type: 'choice', label: 'Reach', values: reaches },
  island: { type: 'number', label: 'Island' },
  island_size: { type: 'number', label: 'Pages of the island' },
  gate_for: { type: 'number', label: 'Gate for' },
  share: { type: 'ratio', label: 'Share' },
  links_in: { type: 'number', label: 'Links in' },
  pages_linking: { type: 'number', label: 'Pages linking' },
  links_out: { type: 'number', label: 'Links out' },
  pages_linked: { type: 'number', label: 'Pages linked' },
  external_links: { type: 'number', label: 'Links outside' },
  anchors: { type: 'number', label: 'Different anchors' },
  anchor_faults: { type: 'set', label: 'Faults of anchors', values: anchorFaults },
  missing_fragments: { type: 'number', label: 'Fragments not found' },
  words: { type: 'number', label: 'Words' },
  content_hash: { type: 'text', label: 'Content hash' },
  breadcrumb: { type: 'text', label: 'Breadcrumb' },
  breadcrumb_parent: { type: 'text', label: 'Above it in the breadcrumb' },
  duplicates: { type: 'number', label: 'Duplicates' },
  near_duplicates: { type: 'number', label: 'Near-duplicates' },
  near_group: { type: 'number', label: 'Group of near-duplicates' },
  variants: { type: 'number', label: 'Variants' },
  variants_unsettled: { type: 'flag', label: 'Variants unsettled' },
  page_rules: { type: 'text', label: 'Rules for all crawlers' },
  truncated: { type: 'flag', label: 'Read in part' },
  carried: { type: 'flag', label: 'Carried over' },
  fetched_at: { type: 'text', label: 'Fetched' },
  sitemap_lastmod: { type: 'text', label: 'Sitemap lastmod' },
} as const satisfies Record<string, Fact>;

export type FactName = keyof typeof facts;
export const factNames = Object.keys(facts) as FactName[];
export const factOf = (name: FactName): Fact => facts[name];
export const isFactName = (name: string): name is FactName => Object.hasOwn(facts, name);

/** What a fact is to a reader: null is unknown. */
export type FactValue = string | number | boolean | readonly string[] | null;
