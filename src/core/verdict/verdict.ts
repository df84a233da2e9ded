import { verdicts } from '../facts';
import type { Verdict } from '../facts';
import { pagesNamed } from '../snapshot';
import type { Base, ColumnReader } from '../snapshot';

const redirectStatus = new Set([301, 302, 303, 307, 308]);
export const isRedirectStatus = (status: number) => redirectStatus.has(status);

/** What the verdict on one address is decided from. */
export interface VerdictFacts {
  /** Known, and not fetched. */
  unvisited: boolean;
  /** A robots.txt rule closes it, whether or not it was fetched all the same. */
  blocked: boolean;
  /** No answer came, or none that could be read. */
  unanswered: boolean;
  status: number | null;
  /** Whether an HTTP redirect or a meta refresh names another address. */
  redirects: boolean;
  html: boolean;
  noindex: boolean;
  canonicalElsewhere: boolean;
}

/** The verdict on one address: the first that applies (docs/MEANINGS.md, "Verdict"). */
export function verdictOf(facts: VerdictFacts): Verdict {
  const { status } = facts;
  if (facts.unvisited) return 'unvisited';
  if (facts.blocked) return 'blocked';
  if (facts.unanswered || status === null) return 'unanswered';
  if (status >= 500) return 'failing';
  if (status >= 400) return 'broken';
  if (facts.redirects || isRedirectStatus(status)) return 'redirect';
  if (!facts.html || status !== 200) return 'not_html';
  if (facts.noindex) return 'noindex';
  return facts.canonicalElsewhere ? 'canonicalised' : 'indexable';
}

export interface VerdictBase extends Pick<Base, 'count'> {
  column: ColumnReader<
    'url' | 'unvisited_reason' | 'robots_rule' | 'error' | 'status' | 'redirect_to' | 'html' | 'noindex' | 'canonical'
  >;
}

/** The verdict on every page, as an index into `verdicts`. */
export function verdictColumn(base: VerdictBase): Int32Array {
  const { column } = base;
  const canonicalPages = pagesNamed(base, 'canonical');
  return new Int32Array(base.count).map((_, page) => {
    const status = column('status')[page];
    const verdict = verdictOf({
      unvisited: column('unvisited_reason')[page] >= 0,
      blocked: column('robots_rule').codes[page] > 0,
      unanswered: column('error')[page] >= 0,
      status: status < 0 ? null : status,
      redirects: column('redirect_to').codes[page] > 0,
      html: column('html')[page] === 1,
      noindex: column('noindex')[page] === 1,
      canonicalElsewhere: column('canonical').codes[page] > 0 && canonicalPages[page] !== page,
    });
    return verdicts.indexOf(verdict);
  });
}
