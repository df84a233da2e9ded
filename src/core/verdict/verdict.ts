/** The one answer to "may this be indexed, and if not, why" (docs/MEANINGS.md, "Verdict"), in its order. */
export const verdicts = [
  'unvisited',
  'blocked',
  'unanswered',
  'failing',
  'broken',
  'redirect',
  'not_html',
  'noindex',
  'canonicalised',
  'indexable',
] as const;
export type Verdict = (typeof verdicts)[number];

/** Why a known address was not fetched. */
export const unvisitedReasons = ['limit', 'depth', 'hops', 'scope', 'kind', 'trap', 'selection', 'stopped'] as const;
export type UnvisitedReason = (typeof unvisitedReasons)[number];

const unvisitedText: Record<UnvisitedReason, string> = {
  limit: 'The crawl ended at its limit of pages.',
  depth: 'It lies deeper than the crawl was allowed to go.',
  hops: 'It stands at the end of a chain of too many redirects.',
  scope: 'The patterns of the settings leave it out.',
  kind: 'Only links of a kind that the settings do not follow lead to it.',
  trap: 'It belongs to a family of addresses that grows without end, of which enough were fetched.',
  selection: 'Only a selection was fetched again, and it was not part of it.',
  stopped: 'The crawl was stopped before its turn came.',
};

/** Why no answer came. */
export const fetchErrors = [
  'dns',
  'refused',
  'unreachable',
  'timeout',
  'tls',
  'reset',
  'malformed',
  'private',
  'network',
] as const;
export type FetchError = (typeof fetchErrors)[number];

export const fetchErrorText: Record<FetchError, string> = {
  dns: 'There is no such host.',
  refused: 'The connection was refused.',
  unreachable: 'The host cannot be reached.',
  timeout: 'No answer came in time.',
  tls: 'The certificate or the secure connection was not acceptable.',
  reset: 'The connection broke off before the answer was complete.',
  malformed: 'The answer does not follow HTTP.',
  private: 'The host has a private address, and this server does not fetch from private addresses.',
  network: 'The network failed.',
};

/** What the verdict is decided from. Unknown is null. */
export interface VerdictInput {
  address: string;
  unvisited: UnvisitedReason | null;
  /** The rule that closes the address, described; null when robots.txt lets it through. */
  blockedBy: string | null;
  error: FetchError | null;
  status: number | null;
  /** The address an HTTP redirect or a meta refresh names. */
  redirectTo: string | null;
  html: boolean;
  contentType: string | null;
  noindex: boolean | null;
  /** Requests made, the last of which gave this answer. */
  tries: number;
  /** The page-level rules, for the reason. */
  robots: string | null;
  canonical: string | null;
}

export interface Judgement {
  verdict: Verdict;
  /** One line of evidence, '' when there is nothing to say. */
  reason: string;
}

const redirectStatus = new Set([301, 302, 303, 307, 308]);
export const isRedirectStatus = (status: number) => redirectStatus.has(status);

/** Judges one address. The reason of a redirect is the address it names; where the chain ends needs the other pages. */
export function judge(page: VerdictInput): Judgement {
  const { status } = page;
  const said = page.tries > 1 ? `, asked ${page.tries} times.` : '.';
  if (page.unvisited) return { verdict: 'unvisited', reason: unvisitedText[page.unvisited] };
  if (page.blockedBy !== null) return { verdict: 'blocked', reason: page.blockedBy };
  if (page.error) return { verdict: 'unanswered', reason: fetchErrorText[page.error].replace(/\.$/, said) };
  if (status === null) return { verdict: 'unanswered', reason: fetchErrorText.network };
  if (status >= 500) return { verdict: 'failing', reason: `The server answered ${status}${said}` };
  if (status >= 400) return { verdict: 'broken', reason: `The server answered ${status}${said}` };
  if (isRedirectStatus(status) && !page.redirectTo)
    return { verdict: 'redirect', reason: `The server answered ${status} and named no address that can be followed.` };
  if (page.redirectTo) return { verdict: 'redirect', reason: page.redirectTo };
  if (!page.html || status !== 200)
    return { verdict: 'not_html', reason: page.contentType ?? `The server answered ${status} without a type.` };
  if (page.noindex) return { verdict: 'noindex', reason: page.robots ?? '' };
  if (page.canonical !== null && page.canonical !== page.address)
    return { verdict: 'canonicalised', reason: page.canonical };
  return { verdict: 'indexable', reason: '' };
}

export interface RedirectEnd {
  /** Index of the page where the chain ends, or -1 when it loops or leaves the known pages. */
  final: number;
  hops: number;
  loop: boolean;
}

/**
 * Follows a chain of redirects.
 * @param next index of the page that a page redirects to; -1 when it does not redirect or leads outside
 */
export function followRedirects(from: number, next: (index: number) => number): RedirectEnd {
  const seen = new Set([from]);
  let at = from;
  for (;;) {
    const to = next(at);
    if (to < 0) return { final: at, hops: seen.size - 1, loop: false };
    if (seen.has(to)) return { final: -1, hops: seen.size, loop: true };
    seen.add(to);
    at = to;
  }
}
