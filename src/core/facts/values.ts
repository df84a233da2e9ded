/**
 * The closed lists of values that facts are made of. They are stored as indexes or bits: what is added goes to the end.
 */

/**
 * The one answer to "may this be indexed, and if not, why" (docs/MEANINGS.md, "Verdict"), in the order of its tests.
 */
// Several words a line, to be read as a whole:
// prettier-ignore
export const verdicts = [
  'unvisited', 'blocked', 'unanswered', 'failing', 'broken', 'redirect', 'not_html', 'noindex', 'canonicalised',
  'indexable',
] as const;
export type Verdict = (typeof verdicts)[number];
/** The code of the verdict that most is asked of. */
export const INDEXABLE = verdicts.indexOf('indexable');

/** Why a known address was not fetched. */
export const unvisitedReasons = [
  'limit',
  'depth',
  'hops',
  'scope',
  'kind',
  'trap',
  'selection',
  'stopped',
  'queued',
  'robots',
  'host',
  'planned',
] as const;
export type UnvisitedReason = (typeof unvisitedReasons)[number];

/**
 * Why no answer came, or why an answer could not be used: `unreadable` is a document that could not be parsed within
 * its limits of time and memory.
 */
// Several words a line, to be read as a whole:
// prettier-ignore
export const fetchErrors = [
  'dns', 'refused', 'unreachable', 'timeout', 'tls', 'reset', 'malformed', 'private', 'network', 'unreadable',
] as const;
export type FetchError = (typeof fetchErrors)[number];

/** Why a document is `unreadable`: it took too long, took too much memory, or made the parser fail. */
export const unreadableReasons = ['time', 'memory', 'fault'] as const;
export type UnreadableReason = (typeof unreadableReasons)[number];

/**
 * Where a redirect leads: `single`, to a page that does not redirect; `chain`, there after more than one redirect;
 * `loop`, round in a circle; `outside`, off the site; `nowhere`, the answer names no address that can be followed.
 */
export const redirectStates = ['single', 'chain', 'loop', 'outside', 'nowhere'] as const;
export type RedirectState = (typeof redirectStates)[number];

/**
 * Where the canonical of a page leads (RFC 6596): `self`, the page itself; `other`, another indexable page; `chain`, a
 * page that names yet another or redirects; `loop`, round in a circle; `outside`, off the site; `not_indexable`, a page
 * that may not be indexed; `unknown`, an address that was not fetched.
 */
export const canonicalStates = ['self', 'other', 'chain', 'loop', 'outside', 'not_indexable', 'unknown'] as const;
export type CanonicalState = (typeof canonicalStates)[number];

/** `reached`; `orphan`: no inside page links to it; `island`: only unreached pages do. */
export const reaches = ['reached', 'orphan', 'island'] as const;
export type Reach = (typeof reaches)[number];

/**
 * What keeps a search crawler from a page that a visitor reaches: nofollow, robots.txt, or one as much as the other.
 */
export const heldBack = ['nofollow', 'robots', 'both'] as const;
export type HeldBack = (typeof heldBack)[number];

/** The sources that can know a URL. */
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
 * The robots.txt rule that decides about an address (RFC 9309 §2.2.2). `unreadable` stands for the whole file: it could
 * not be read, which closes the host (§2.3.1.4).
 */
export interface RobotsRule {
  /** 1-based; 0 for a file that could not be read. */
  line: number;
  directive: 'allow' | 'disallow' | 'unreadable';
  /** The path pattern as written. */
  path: string;
  /** Product token of the group that holds it; `*` for all. */
  group: string;
}

/**
 * What became of a page from one crawl to another. `added`, `removed`: known to one crawl only. `gone`: answered 2xx,
 * and now 404 or 410. `returned`: answers 2xx again, after 404, 410 or a redirect. `moved`: answered 2xx and redirects
 * now, or is found at another address. `changed`: facts differ. Every page is of one class.
 */
export const pageClasses = ['added', 'removed', 'gone', 'returned', 'moved', 'changed', 'same'] as const;
export type PageClass = (typeof pageClasses)[number];
