/** What becomes of the canonicals that pages declare (RFC 6596). */
import { canonicalStates, verdicts } from '../facts';
import type { CanonicalState, Verdict } from '../facts';
import { linkKinds } from '../links';
import { pagesNamed } from '../snapshot';
import type { Base, ColumnReader } from '../snapshot';

/** What is known of the address that a canonical names. */
export interface CanonicalTarget {
  verdict: Verdict;
  /** The page it leads on to; −1 when it leads on to none that is known. */
  next: number;
}

const leadsOn = (verdict: Verdict) => verdict === 'canonicalised' || verdict === 'redirect';

/**
 * Judges the canonical of one page.
 * @param target number of the page it names; −1 when that is off the site
 * @param at what is known of a page
 */
export function canonicalState(page: number, target: number, at: (page: number) => CanonicalTarget): CanonicalState {
  if (target === page) return 'self';
  if (target < 0) return 'outside';
  const { verdict } = at(target);
  if (verdict === 'indexable') return 'other';
  if (verdict === 'unvisited') return 'unknown';
  if (!leadsOn(verdict)) return 'not_indexable';
  const seen = new Set([page]);
  for (let step = target; step >= 0; step = at(step).next) {
    if (seen.has(step)) return 'loop';
    seen.add(step);
    if (!leadsOn(at(step).verdict)) break;
  }
  return 'chain';
}

const CANONICAL_KIND = linkKinds.indexOf('canonical');

export interface CanonicalBase extends Pick<Base, 'count' | 'links'> {
  column: ColumnReader<'url' | 'verdict' | 'redirect_to' | 'canonical' | 'html'>;
}

/** Judges the canonical of every page, and counts the different ones that each declares. */
export function canonicalColumns(base: CanonicalBase): { canonical_state: Int32Array; canonicals: Int32Array } {
  const { count, links, column } = base;
  const verdict = column('verdict');
  const canonicals = pagesNamed(base, 'canonical');
  const redirects = pagesNamed(base, 'redirect_to');
  const at = (page: number): CanonicalTarget => {
    const name = verdicts[verdict[page]];
    return { verdict: name, next: name === 'redirect' ? redirects[page] : canonicals[page] };
  };
  const state = new Int32Array(column('canonical').codes).map((code, page) =>
    code === 0 ? -1 : canonicalStates.indexOf(canonicalState(page, canonicals[page], at)),
  );
  const different = new Int32Array(count).fill(-1);
  for (let page = 0; page < count; page++) {
    if (column('html')[page] !== 1) continue;
    const targets = new Set<number>();
    for (let link = links.offsets[page]; link < links.offsets[page + 1]; link++)
      if (links.kind[link] === CANONICAL_KIND) targets.add(links.target[link]);
    different[page] = targets.size;
  }
  return { canonical_state: state, canonicals: different };
}
