/**
 * What is observed of a page, described once: what a crawl finds at its address, and how the base facts are read off
 * it. The columns of the table `page` (src/server/database/schema.ts) are checked against it.
 */
import { baseFacts } from '../facts';
import type { BaseFact, FetchError, RobotsRule, UnreadableReason, UnvisitedReason } from '../facts';
import type { Crumb } from '../html';

/** What is not known yet of a type. */
const unknown = <T>(): T | null => null;

/** What a crawl found at an address, before it has found anything. Unknown is null. */
export const nothingFound = {
  robotsRule: unknown<RobotsRule>(),
  status: unknown<number>(),
  error: unknown<FetchError>(),
  unreadableReason: unknown<UnreadableReason>(),
  contentType: unknown<string>(),
  html: false as boolean,
  bytes: unknown<number>(),
  responseMs: unknown<number>(),
  /** The address that an HTTP redirect or a meta refresh names. */
  redirectTo: unknown<string>(),
  title: unknown<string>(),
  description: unknown<string>(),
  h1: unknown<string>(),
  language: unknown<string>(),
  robots: unknown<string>(),
  noindex: unknown<boolean>(),
  pageNofollow: unknown<boolean>(),
  canonical: unknown<string>(),
  pageRules: unknown<string>(),
  breadcrumb: unknown<Crumb[]>(),
  wordCount: unknown<number>(),
  /** The first 128 bits of SHA-256 of the body, in hexadecimal digits. */
  contentHash: unknown<string>(),
  /** 64 bits (src/core/words/fingerprint.ts). */
  fingerprint: unknown<Uint8Array>(),
  /** Which words the main content has (src/core/words). */
  wordFilter: unknown<Uint8Array>(),
  /** What fragments can name, a line each; null when that was not asked. */
  ids: unknown<string>(),
  /** Requests made until it answered for good. */
  tries: 1 as number,
  /** Whether the body, or one of its texts, was longer than what is read. */
  truncated: false as boolean,
  /** Whether it was taken over from an earlier crawl. */
  carried: false as boolean,
  fetchedAt: unknown<Date>(),
};
export type FoundFacts = typeof nothingFound;

/** One known inside address as a crawl left it. */
export interface PageRecord {
  /** Number of the address, as links name it. */
  number: number;
  address: string;
  /** Null when it was fetched, or closed by robots.txt. */
  unvisitedReason: UnvisitedReason | null;
  /** How many links it has. */
  linkCount: number;
  found: FoundFacts;
}

export type Observed = string | number | boolean | null;

/** A rule as the fact `robots_rule` has it. */
export const robotsRuleText = ({ directive, path }: RobotsRule) =>
  directive === 'unreadable' ? directive : `${directive === 'allow' ? 'Allow' : 'Disallow'}: ${path}`;

/** How each base fact is read off a record, but for the address; `sitemap_lastmod` comes from the listings. */
export const observed: Record<Exclude<BaseFact, 'url' | 'sitemap_lastmod'>, (page: PageRecord) => Observed> = {
  status: ({ found }) => found.status,
  content_type: ({ found }) => found.contentType,
  html: ({ found }) => found.html,
  bytes: ({ found }) => found.bytes,
  response_ms: ({ found }) => found.responseMs,
  tries: ({ found }) => (found.fetchedAt ? found.tries : null),
  error: ({ found }) => found.error,
  unreadable_reason: ({ found }) => found.unreadableReason,
  unvisited_reason: ({ unvisitedReason }) => unvisitedReason,
  redirect_to: ({ found }) => found.redirectTo,
  title: ({ found }) => found.title,
  description: ({ found }) => found.description,
  h1: ({ found }) => found.h1,
  language: ({ found }) => found.language,
  robots: ({ found }) => found.robots,
  page_rules: ({ found }) => found.pageRules,
  robots_rule: ({ found }) => found.robotsRule && robotsRuleText(found.robotsRule),
  robots_line: ({ found }) => found.robotsRule?.line || null,
  robots_group: ({ found }) => found.robotsRule?.group || null,
  noindex: ({ found }) => found.noindex,
  page_nofollow: ({ found }) => found.pageNofollow,
  canonical: ({ found }) => found.canonical,
  word_count: ({ found }) => found.wordCount,
  content_hash: ({ found }) => found.contentHash,
  breadcrumb: ({ found }) => found.breadcrumb && found.breadcrumb.map(({ name }) => name).join(' › '),
  breadcrumb_parent: ({ address, found }) =>
    found.breadcrumb?.findLast((crumb) => crumb.address && crumb.address !== address)?.address ?? null,
  truncated: ({ found }) => (found.status === null ? null : found.truncated),
  carried: ({ found }) => found.carried,
  fetched_at: ({ found }) => found.fetchedAt && found.fetchedAt.toISOString().replace(/\.\d+Z/, 'Z'),
};
/** The facts that are read off a record. */
export const observedFacts = baseFacts.filter((name): name is keyof typeof observed => name in observed);

export type ObservedFacts = Record<(typeof observedFacts)[number], Observed>;

/** The base facts of a page at which some things are found, and nothing else. */
export function observedOf(address: string, found: Partial<FoundFacts>): ObservedFacts {
  const page = { number: 0, address, unvisitedReason: null, linkCount: 0, found: { ...nothingFound, ...found } };
  return Object.fromEntries(observedFacts.map((name) => [name, observed[name](page)])) as ObservedFacts;
}
