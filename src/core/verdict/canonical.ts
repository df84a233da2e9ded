/** What becomes of the canonical that a page declares (RFC 6596; docs/MEANINGS.md, "Verdict"). */
export const canonicalStates = [
  /** It names the page itself. */
  'self',
  /** It names another page, which may be indexed. */
  'other',
  /** It names a page that names yet another, or redirects. */
  'chain',
  /** Following canonicals and redirects leads round. */
  'loop',
  /** It leads outside the site. */
  'outside',
  /** It names a page that may not be indexed. */
  'not_indexable',
  /** It names an address that was not fetched. */
  'unknown',
] as const;
export type CanonicalState = (typeof canonicalStates)[number];

/** What is known of the address that a canonical names. */
export interface CanonicalTarget {
  verdict: string;
  /** The page it leads on to; −1 when it leads on to none that is known. */
  next: number;
}

/**
 * Judges the canonical of one page.
 * @param target number of the page it names; −1 when that is outside
 * @param at what is known of a page
 */
export function canonicalState(page: number, target: number, at: (page: number) => CanonicalTarget): CanonicalState {
  if (target === page) return 'self';
  if (target < 0) return 'outside';
  const { verdict } = at(target);
  if (verdict === 'indexable') return 'other';
  if (verdict === 'unvisited') return 'unknown';
  if (verdict !== 'canonicalised' && verdict !== 'redirect') return 'not_indexable';
  const seen = new Set([page]);
  for (let step = target; step >= 0; step = at(step).next) {
    if (seen.has(step)) return 'loop';
    seen.add(step);
    const { verdict } = at(step);
    if (verdict !== 'canonicalised' && verdict !== 'redirect') break;
  }
  return 'chain';
}
